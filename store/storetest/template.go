package storetest

import (
	"context"
	"fmt"
	"net/url"
	"os"
	"sync/atomic"

	"alpenglow/store"

	"github.com/jackc/pgx/v5"
)

// migrated is the template of all houses: tables that are up to date, with nothing in them.
const migrated = "migrated"

var copies atomic.Int64

// Template makes a database that others are copied from, with tables that are up to date and what fill puts into them,
// if given, unless the cluster has one of that name. Several processes may ask at once; one makes it, the others wait.
func Template(ctx context.Context, cluster, name string, fill func(context.Context, *store.Store) error) error {
	conn, err := pgx.Connect(ctx, named(cluster, "postgres"))
	if err != nil {
		return fmt.Errorf("make the database %s: %w", name, err)
	}
	defer conn.Close(ctx)
	if err := ensure(ctx, conn, cluster, name, fill); err != nil {
		return fmt.Errorf("make the database %s: %w", name, err)
	}
	return nil
}

// Copy makes a database of a name of its own, with what a template holds, and gives its address.
func Copy(ctx context.Context, cluster, template string) (string, error) {
	conn, err := pgx.Connect(ctx, named(cluster, "postgres"))
	if err != nil {
		return "", fmt.Errorf("copy the database %s: %w", template, err)
	}
	defer conn.Close(ctx)
	name := fmt.Sprintf("test_%d_%d", os.Getpid(), copies.Add(1))
	if err := create(ctx, conn, name, template); err != nil {
		return "", fmt.Errorf("copy the database %s: %w", template, err)
	}
	return named(cluster, name), nil
}

// making is the number of the lock under which templates are made.
const making = 20_262

func ensure(ctx context.Context, conn *pgx.Conn, cluster, template string,
	fill func(context.Context, *store.Store) error) error {
	there, err := exists(ctx, conn, template)
	if err != nil || there {
		return err
	}
	// The lock ends with this connection, whatever happens.
	if _, err := conn.Exec(ctx, `SELECT pg_advisory_lock($1)`, making); err != nil {
		return err
	}
	defer conn.Exec(ctx, `SELECT pg_advisory_unlock($1)`, making)
	if there, err := exists(ctx, conn, template); err != nil || there {
		return err
	}
	// It has its name when it is whole.
	half := template + "_" + fmt.Sprint(os.Getpid())
	if err := create(ctx, conn, half, "template1"); err != nil {
		return err
	}
	s, err := store.Open(ctx, named(cluster, half))
	if err != nil {
		return err
	}
	err = s.Migrate(ctx)
	if err == nil && fill != nil {
		err = fill(ctx, s)
	}
	s.Close()
	if err == nil {
		_, err = conn.Exec(ctx, fmt.Sprintf(`ALTER DATABASE %s RENAME TO %s`, quoted(half), quoted(template)))
	}
	return err
}

func exists(ctx context.Context, conn *pgx.Conn, name string) (there bool, err error) {
	err = conn.QueryRow(ctx, `SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)`, name).Scan(&there)
	return there, err
}

func create(ctx context.Context, conn *pgx.Conn, name, template string) error {
	_, err := conn.Exec(ctx, fmt.Sprintf(`CREATE DATABASE %s TEMPLATE %s`, quoted(name), quoted(template)))
	return err
}

func quoted(name string) string { return pgx.Identifier{name}.Sanitize() }

// named gives the address of another database of the same cluster.
func named(cluster, database string) string {
	u, err := url.Parse(cluster)
	if err != nil {
		return cluster // whoever connects says what is wrong with it
	}
	u.Path = "/" + database
	return u.String()
}
