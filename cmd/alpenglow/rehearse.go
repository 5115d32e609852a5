package main

import (
	"context"
	"errors"
	"flag"
	"log/slog"
	"math/rand/v2"
	"os"

	"alpenglow/standin"
)

// rehearse sends a simulated class to a running lesson until it is stopped or
// the lesson ends.
func rehearse(ctx context.Context, args []string) error {
	o := standin.Options{Log: slog.New(slog.NewTextHandler(os.Stderr, nil))}
	flags := flag.NewFlagSet("rehearse", flag.ContinueOnError)
	flags.StringVar(&o.URL, "url", "http://127.0.0.1:8080", "address of the server")
	flags.StringVar(&o.Code, "code", "", "join code of the practice session")
	flags.IntVar(&o.Students, "students", 12, "students, 1 to 40")
	flags.Float64Var(&o.Pace, "pace", 1, "1 for human pace, less for quicker")
	flags.Uint64Var(&o.Seed, "seed", rand.Uint64(), "the same seed makes the same class")
	if err := flags.Parse(args); err != nil {
		return err
	}
	if o.Code == "" || o.Students < 1 || o.Students > 40 || o.Pace <= 0 {
		return errors.New("rehearse: give -code, and 1 to 40 -students")
	}
	class := standin.Start(ctx, o)
	class.Wait()
	return nil
}
