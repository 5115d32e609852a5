package main

import (
	"context"
	"fmt"
	"net"
	"os"
	"path/filepath"
	"time"

	"alpenglow/demo"
	"alpenglow/standin"
	"alpenglow/store"
	"alpenglow/store/private"
)

// serveDemo runs the server with a private PostgreSQL cluster under .local (or
// ALPENGLOW_DATA) and puts the demo data into a new database.
func serveDemo(ctx context.Context, _ []string) error {
	if os.Getenv("ALPENGLOW_LOG") == "" {
		os.Setenv("ALPENGLOW_LOG", "warn")
	}
	dir, err := private.Readable(filepath.Join(setting("DATA", ".local"), "postgres"))
	if err != nil {
		return err
	}
	// The cluster outlives ctx, so that the server can save what it accepted.
	cluster, err := private.Start(context.WithoutCancel(ctx), private.Options{Dir: dir})
	if err != nil {
		return fmt.Errorf(
			"%w\nIs the demo running already? Stop it first, or choose another folder with ALPENGLOW_DATA",
			err,
		)
	}
	defer cluster.Stop()
	listener, err := net.Listen("tcp", setting("ADDR", "127.0.0.1:8080"))
	if err != nil && os.Getenv("ALPENGLOW_ADDR") == "" {
		listener, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return fmt.Errorf("listen (ALPENGLOW_ADDR): %w", err)
	}
	box, err := standin.NewMailbox()
	if err != nil {
		return fmt.Errorf("open the mailbox: %w", err)
	}
	defer box.Close()
	if os.Getenv("ALPENGLOW_SMTP_URL") == "" {
		os.Setenv("ALPENGLOW_SMTP_URL", box.URL())
	}
	return run(ctx, cluster.URL, listener, func(ctx context.Context, s *store.Store) error {
		if err := demo.Fill(ctx, s, time.Now()); err != nil {
			return err
		}
		at := "http://" + listener.Addr().String()
		fmt.Printf(`
  Alpenglow is running. Ctrl-C stops it; the data stays in %s

  students   %s
  teachers   %s/sign-in     %s  /  %s
  mail       %s/mailbox     whatever is sent comes here
  database   %s (process %d)

`, dir, at, at, demo.Email, demo.Password, at, cluster.URL, cluster.PID)
		return nil
	}, box.Letters)
}
