// Package storetest gives tests a real PostgreSQL of their own.
package storetest

import (
	"context"
	"fmt"
	"os"
	"sync/atomic"
	"testing"

	"alpenglow/store"
	"alpenglow/store/private"

	"github.com/jmoiron/sqlx"
)

var (
	cluster   *private.Cluster
	databases atomic.Int64
)

// Main runs a package's tests beside a private cluster; call it from TestMain.
func Main(m *testing.M) { os.Exit(Run(m)) }

// Run does the same and gives the code to exit with.
func Run(m *testing.M) int {
	dir, err := os.MkdirTemp("/var/tmp", "alpenglow-test-")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	cluster, err = private.Start(context.Background(), private.Options{Dir: dir, Fast: true})
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer cluster.Stop()
	return m.Run()
}

// URL gives the address of a new, empty database.
func URL(t testing.TB) string {
	t.Helper()
	url, err := cluster.New(context.Background(), fmt.Sprintf("test%d", databases.Add(1)))
	if err != nil {
		t.Fatal(err)
	}
	return url
}

// Open connects to a database and brings its tables up to date.
func Open(t testing.TB, url string) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), url)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	if err := s.Migrate(context.Background()); err != nil {
		t.Fatal(err)
	}
	return s
}

// DB gives a connection of its own to a database, closed when the test ends.
func DB(t testing.TB, url string) *sqlx.DB {
	t.Helper()
	db, err := sqlx.Connect("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { db.Close() })
	return db
}
