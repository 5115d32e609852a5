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

	_ "github.com/jackc/pgx/v5/stdlib" // the driver "pgx"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound says that there is no such row.
var ErrNotFound = errors.New("not found")

// Store is the database. It is safe for concurrent use.
type Store struct {
	db *sqlx.DB
}

// Open connects to the database at a PostgreSQL URL.
func Open(ctx context.Context, url string) (*Store, error) {
	db, err := sqlx.ConnectContext(ctx, "pgx", url)
	if err != nil {
		return nil, fmt.Errorf("connect to the database: %w", err)
	}
	db.SetMaxOpenConns(24)
	db.SetMaxIdleConns(24)
	db.SetConnMaxIdleTime(5 * time.Minute)
	return &Store{db}, nil
}

// Close ends all connections.
func (s *Store) Close() error { return s.db.Close() }

// Ping says whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

// Migrate brings the tables to the version that this program needs. Several
// processes may do so at once: one works, the others wait.
func (s *Store) Migrate(ctx context.Context) error {
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	defer conn.Close()
	const key = 0x616c70656e676c6f // any number, the same in every process
	if _, err := conn.ExecContext(ctx, `SELECT pg_advisory_lock($1)`, key); err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), `SELECT pg_advisory_unlock($1)`, key)
	folder, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
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
	err := s.db.GetContext(ctx, dest, query, args...)
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return err
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
