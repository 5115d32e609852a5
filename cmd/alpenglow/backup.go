package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"alpenglow/standin"
	"alpenglow/store"
)

var errNoFile = errors.New("give the name of one file")

// backup writes everything in the database to a new file.
func backup(ctx context.Context, args []string) error {
	return onDatabase(ctx, func(s *store.Store) error {
		return toFile(args, func(to io.Writer) error { return s.Backup(ctx, to) })
	})
}

// restore fills an empty database from such a file.
func restore(ctx context.Context, args []string) error {
	if len(args) != 1 {
		return errNoFile
	}
	from, err := os.Open(args[0])
	if err != nil {
		return err
	}
	defer from.Close()
	return onDatabase(ctx, func(s *store.Store) error { return s.Restore(ctx, from) })
}

// registerSeed makes the register the same every time.
const registerSeed = 1

// register writes the register of the made-up school.
func register(_ context.Context, args []string) error {
	return toFile(args, func(to io.Writer) error { return standin.WriteRegister(to, registerSeed) })
}

// toFile writes a new file under the one name given; what was not finished is not left
// under it.
func toFile(args []string, write func(io.Writer) error) error {
	if len(args) != 1 {
		return errNoFile
	}
	if _, err := os.Stat(args[0]); err == nil {
		return fmt.Errorf("%s is there already", args[0])
	}
	part := args[0] + ".part"
	file, err := os.OpenFile(part, os.O_CREATE|os.O_WRONLY|os.O_TRUNC, 0o600)
	if err != nil {
		return err
	}
	err = write(file)
	if err = errors.Join(err, file.Sync(), file.Close()); err != nil {
		return errors.Join(err, os.Remove(part))
	}
	return os.Rename(part, args[0])
}
