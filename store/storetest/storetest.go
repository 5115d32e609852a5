// Package storetest gives tests a real PostgreSQL of their own.
package storetest

import (
	"context"
	"fmt"
	"os"
	"testing"

	"alpenglow/store"
	"alpenglow/store/private"

	"github.com/jmoiron/sqlx"
)

// Shared names the environment variable with the address of a cluster that is up already: a run of all tests starts
// one for all packages. A package that is tested alone starts its own.
const Shared = "ALPENGLOW_TEST_CLUSTER"

// cluster is the address of a database of the cluster that tests use.
var cluster string

// Main runs a package's tests beside a private cluster; call it from TestMain.
func Main(m *testing.M) { os.Exit(Run(m)) }

// Run does the same and gives the code to exit with.
func Run(m *testing.M) int {
	if cluster = os.Getenv(Shared); cluster != "" {
		return m.Run()
	}
	dir, err := os.MkdirTemp("/var/tmp", "alpenglow-test-")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	own, err := private.Start(context.Background(), private.Options{Dir: dir, Fast: true})
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer own.Stop()
	cluster = own.URL
	return m.Run()
}

// URL gives the address of a new database whose tables are up to date and empty.
func URL(t testing.TB) string {
	t.Helper()
	return Filled(t, migrated, nil)
}

// Filled gives the address of a new database with what fill puts into it, or has put into an earlier one of this
// name: it is filled once for all tests of a run.
func Filled(t testing.TB, name string, fill func(context.Context, *store.Store) error) string {
	t.Helper()
	if err := Template(context.Background(), cluster, name, fill); err != nil {
		t.Fatal(err)
	}
	return copied(t, name)
}

// Bare gives the address of a new database without tables.
func Bare(t testing.TB) string {
	t.Helper()
	return copied(t, "template1")
}

func copied(t testing.TB, template string) string {
	t.Helper()
	url, err := Copy(context.Background(), cluster, template)
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
