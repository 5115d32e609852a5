package store

import (
	"archive/tar"
	"compress/gzip"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/stdlib"
)

// backupFormat is what the first entry of a backup says.
const backupFormat = "alpenglow backup"

// backupHead is that entry. The tables follow in the order of Tables, each as
// PostgreSQL's COPY writes it as text.
type backupHead struct {
	Format string        `json:"format"`
	Made   time.Time     `json:"made"`
	Schema int64         `json:"schema"` // the version of the tables
	Tables []backupTable `json:"tables"`
}

type backupTable struct {
	Name    string   `json:"name"`
	Columns []string `json:"columns"`
}

// Backup writes everything in the database as one file, as it is at one moment, while
// others go on.
func (s *Store) Backup(ctx context.Context, to io.Writer) error {
	err := s.onConnection(ctx, func(c *pgx.Conn) error {
		tx, err := c.BeginTx(ctx, pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly})
		if err != nil {
			return err
		}
		defer tx.Rollback(ctx)
		head := backupHead{Format: backupFormat, Made: time.Now().UTC()}
		if head.Schema, err = schemaOf(ctx, tx); err != nil {
			return err
		}
		if head.Tables, err = tablesOf(ctx, tx); err != nil {
			return err
		}
		zipped := gzip.NewWriter(to)
		archive := tar.NewWriter(zipped)
		text, err := json.Marshal(head)
		if err != nil {
			return err
		}
		if err := entry(archive, "backup.json", strings.NewReader(string(text)), int64(len(text))); err != nil {
			return err
		}
		for _, t := range head.Tables {
			if err := backUp(ctx, c, archive, t); err != nil {
				return fmt.Errorf("%s: %w", t.Name, err)
			}
		}
		return errors.Join(archive.Close(), zipped.Close())
	})
	if err != nil {
		return fmt.Errorf("back up: %w", err)
	}
	return nil
}

// backUp writes a table. How long it is has to be known first: it goes through a file.
func backUp(ctx context.Context, c *pgx.Conn, archive *tar.Writer, t backupTable) error {
	file, err := os.CreateTemp("", "alpenglow-backup-*")
	if err != nil {
		return err
	}
	defer os.Remove(file.Name())
	defer file.Close()
	if _, err := c.PgConn().CopyTo(ctx, file, `COPY `+t.quoted()+` TO STDOUT`); err != nil {
		return err
	}
	size, err := file.Seek(0, io.SeekCurrent)
	if err == nil {
		_, err = file.Seek(0, io.SeekStart)
	}
	if err != nil {
		return err
	}
	return entry(archive, t.Name, file, size)
}

func entry(archive *tar.Writer, name string, from io.Reader, size int64) error {
	if err := archive.WriteHeader(&tar.Header{Name: name, Mode: 0o600, Size: size}); err != nil {
		return err
	}
	_, err := io.Copy(archive, from)
	return err
}

// quoted gives a table with its columns, as COPY takes them.
func (t backupTable) quoted() string {
	columns := make([]string, len(t.Columns))
	for i, c := range t.Columns {
		columns[i] = pgx.Identifier{c}.Sanitize()
	}
	return pgx.Identifier{t.Name}.Sanitize() + ` (` + strings.Join(columns, ", ") + `)`
}

// ErrNotEmpty says that there is something in the database already.
var ErrNotEmpty = errors.New("the database is not empty")

// Restore fills an empty database, whose tables are of the version that this program
// needs, with what a backup has that was written with tables of the same version. It
// says ErrNotEmpty, and changes nothing, where somebody has an account already.
func (s *Store) Restore(ctx context.Context, from io.Reader) error {
	zipped, err := gzip.NewReader(from)
	if err != nil {
		return fmt.Errorf("restore: this is no backup: %w", err)
	}
	archive := tar.NewReader(zipped)
	var head backupHead
	if _, err := archive.Next(); err != nil {
		return fmt.Errorf("restore: this is no backup: %w", err)
	}
	if err := json.NewDecoder(archive).Decode(&head); err != nil || head.Format != backupFormat {
		return errors.New("restore: this is no backup")
	}
	err = s.onConnection(ctx, func(c *pgx.Conn) error {
		tx, err := c.Begin(ctx)
		if err != nil {
			return err
		}
		defer tx.Rollback(ctx)
		if err := mayRestore(ctx, tx, head); err != nil {
			return err
		}
		// Rows refer to others that come later: that is looked at when all are there.
		if err := eachReference(ctx, tx, "DEFERRABLE INITIALLY DEFERRED"); err != nil {
			return err
		}
		for _, t := range head.Tables {
			h, err := archive.Next()
			if err != nil || h.Name != t.Name {
				return fmt.Errorf("%s is missing in the backup", t.Name)
			}
			if t.Name != "journal" { // which nobody changes, and which is empty
				if _, err := tx.Exec(ctx, `DELETE FROM `+pgx.Identifier{t.Name}.Sanitize()); err != nil {
					return err
				}
			}
			if _, err := c.PgConn().CopyFrom(ctx, archive, `COPY `+t.quoted()+` FROM STDIN`); err != nil {
				return fmt.Errorf("%s: %w", t.Name, err)
			}
		}
		if _, err := tx.Exec(ctx, `SET CONSTRAINTS ALL IMMEDIATE`); err != nil {
			return err
		}
		if err := eachReference(ctx, tx, "NOT DEFERRABLE"); err != nil {
			return err
		}
		// Where lines are numbered, the next one follows the last.
		if _, err := tx.Exec(ctx, `SELECT setval(pg_get_serial_sequence('journal', 'id'),
			greatest((SELECT max(id) FROM journal), 1), (SELECT count(*) > 0 FROM journal))`); err != nil {
			return err
		}
		return tx.Commit(ctx)
	})
	if err != nil {
		return fmt.Errorf("restore: %w", err)
	}
	return nil
}

// mayRestore reports why a backup cannot be restored into this database.
func mayRestore(ctx context.Context, tx pgx.Tx, head backupHead) error {
	schema, err := schemaOf(ctx, tx)
	if err != nil {
		return err
	}
	if schema != head.Schema {
		return fmt.Errorf(
			"the backup is of version %d of the tables, this program has %d: use the program that wrote it, "+
				"then start the newer one",
			head.Schema,
			schema,
		)
	}
	var there bool
	if err := tx.QueryRow(ctx, `SELECT EXISTS (SELECT 1 FROM teachers)`).Scan(&there); err != nil {
		return err
	}
	if there {
		return ErrNotEmpty
	}
	tables, err := tablesOf(ctx, tx)
	if err != nil {
		return err
	}
	known := map[string]string{}
	for _, t := range tables {
		known[t.Name] = t.quoted()
	}
	for _, t := range head.Tables {
		if known[t.Name] != t.quoted() {
			return fmt.Errorf("the table %s is another one here", t.Name)
		}
	}
	return nil
}

// eachReference changes when it is looked at whether what rows refer to is there.
func eachReference(ctx context.Context, tx pgx.Tx, to string) error {
	rows, err := tx.Query(ctx, `SELECT conrelid::regclass::text, conname FROM pg_constraint
		WHERE contype = 'f' AND connamespace = 'public'::regnamespace`)
	if err != nil {
		return err
	}
	type reference struct{ table, name string }
	all, err := pgx.CollectRows(rows, func(row pgx.CollectableRow) (reference, error) {
		var r reference
		err := row.Scan(&r.table, &r.name)
		return r, err
	})
	for _, r := range all {
		if err != nil {
			break
		}
		_, err = tx.Exec(ctx, `ALTER TABLE `+r.table+` ALTER CONSTRAINT `+pgx.Identifier{r.name}.Sanitize()+` `+to)
	}
	return err
}

func schemaOf(ctx context.Context, tx pgx.Tx) (version int64, err error) {
	err = tx.QueryRow(ctx, `SELECT max(version_id) FROM goose_db_version WHERE is_applied`).Scan(&version)
	return version, err
}

// tablesOf lists the tables with their columns, but what the database keeps itself: which
// versions its tables have had.
func tablesOf(ctx context.Context, tx pgx.Tx) ([]backupTable, error) {
	rows, err := tx.Query(ctx, `SELECT c.table_name, array_agg(c.column_name::text ORDER BY c.ordinal_position)
		FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
		WHERE table_schema = 'public' AND t.table_type = 'BASE TABLE' AND table_name <> 'goose_db_version'
		GROUP BY 1 ORDER BY 1`)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (backupTable, error) {
		var t backupTable
		err := row.Scan(&t.Name, &t.Columns)
		return t, err
	})
}

// onConnection lends a connection of PostgreSQL's own kind.
func (s *Store) onConnection(ctx context.Context, work func(c *pgx.Conn) error) error {
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	return conn.Raw(func(driver any) error { return work(driver.(*stdlib.Conn).Conn()) })
}
