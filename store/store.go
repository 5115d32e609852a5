// Package store keeps everything in PostgreSQL. It knows tables and
// transactions and decides nothing.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"time"

	"github.com/jackc/pgx/v5/pgconn"
	_ "github.com/jackc/pgx/v5/stdlib" // the driver "pgx"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound says that there is no such row.
var ErrNotFound = errors.New("not found")

// Store is the database. It is safe for concurrent use.
type Store struct {
	db *sqlx.DB
	// lesson are connections for what a lesson waits for, operations and commands:
	// questions from the web, however many, are never before them in line.
	lesson *sqlx.DB
}

// How many connections there are for all questions, and for saving alone.
const (
	connections = 20
	forLessons  = 4
)

// Open connects to the database at a PostgreSQL URL.
func Open(ctx context.Context, url string) (*Store, error) {
	open := func(most int) (*sqlx.DB, error) {
		db, err := sqlx.ConnectContext(ctx, "pgx", url)
		if err != nil {
			return nil, fmt.Errorf("connect to the database: %w", err)
		}
		db.SetMaxOpenConns(most)
		db.SetMaxIdleConns(most)
		db.SetConnMaxIdleTime(5 * time.Minute)
		return db, nil
	}
	db, err := open(connections)
	if err != nil {
		return nil, err
	}
	lesson, err := open(forLessons)
	if err != nil {
		db.Close()
		return nil, err
	}
	return &Store{db, lesson}, nil
}

// Close ends all connections.
func (s *Store) Close() error { return errors.Join(s.db.Close(), s.lesson.Close()) }

// Ping says whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

// turnWithin is how long a process waits at most for another one that brings the tables up to date.
const turnWithin = 5 * time.Minute

// Migrate brings the tables to the version that this program needs.
func (s *Store) Migrate(ctx context.Context) error {
	folder, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	// Several processes may do so at once: one works, the others wait, each with a connection whose end ends its turn.
	// The lock is goose's own, which earlier versions of this program take.
	turn, err := s.db.Connx(ctx)
	if err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	defer turn.Close()
	waiting, enough := context.WithTimeout(ctx, turnWithin)
	defer enough()
	if _, err := turn.ExecContext(waiting, `SELECT pg_advisory_lock($1)`, lock.DefaultLockID); err != nil {
		return fmt.Errorf("migrate: wait for another process that does so: %w", err)
	}
	defer turn.ExecContext(context.WithoutCancel(ctx), `SELECT pg_advisory_unlock($1)`, lock.DefaultLockID)
	provider, err := goose.NewProvider(goose.DialectPostgres, s.db.DB, folder)
	if err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	return nil
}

// get reads one row into dest and says ErrNotFound when there is none.
func (s *Store) get(ctx context.Context, dest any, query string, args ...any) error {
	return none(s.db.GetContext(ctx, dest, query, args...))
}

// none says ErrNotFound where there is no row.
func none(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return err
}

// Bare gives an error of the database without the values that it quotes: they
// may be what somebody wrote.
func Bare(err error) string {
	if failed := new(pgconn.PgError); errors.As(err, &failed) {
		return failed.Code + " " + failed.ConstraintName
	}
	return err.Error()
}

// one reads one row and says ErrNotFound when there is none.
func one[T any](ctx context.Context, s *Store, query string, args ...any) (T, error) {
	var row T
	err := s.get(ctx, &row, query, args...)
	return row, err
}

// list reads rows; without any it is empty, not nil.
func list[T any](ctx context.Context, s *Store, query string, args ...any) ([]T, error) {
	rows := []T{}
	err := s.db.SelectContext(ctx, &rows, query, args...)
	return rows, err
}

// JSON is a column that holds a value of type T as JSON.
type JSON[T any] struct{ V T }

// Scan reads the column.
func (j *JSON[T]) Scan(src any) error {
	switch text := src.(type) {
	case []byte:
		return json.Unmarshal(text, &j.V)
	case string:
		return json.Unmarshal([]byte(text), &j.V)
	}
	return fmt.Errorf("read JSON column: unexpected %T", src)
}

// asJSON writes a value for a JSON column.
func asJSON(v any) (string, error) {
	text, err := json.Marshal(v)
	return string(text), err
}
