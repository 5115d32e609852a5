package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"net"
	"net/http"
	"net/url"
	"os"
	"runtime/debug"
	"strconv"
	"strings"
	"time"

	"alpenglow/apart"
	"alpenglow/core/account"
	"alpenglow/core/lesson"
	"alpenglow/live"
	"alpenglow/mail"
	"alpenglow/pdf"
	"alpenglow/pdf/child"
	"alpenglow/standin"
	"alpenglow/store"
	"alpenglow/ui"
	"alpenglow/web"

	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
)

// stopWithin is how long the server takes at most to finish what it has accepted.
const stopWithin = 15 * time.Second

// roomForGarbage is how much the heap grows, in percent of what is in use,
// before garbage is collected. While it is, everybody waits longer; rarely is
// better (docs/decisions/0016-no-fixed-wait.md). With more memory than
// roomInAll, in bytes, it is collected more often.
const (
	roomForGarbage = 400
	roomInAll      = 640 << 20
)

// deletedLast is how long deleted boards are kept.
const deletedLast = 30 * 24 * time.Hour

// serve runs the server on the database of ALPENGLOW_DATABASE_URL.
func serve(ctx context.Context, _ []string) error {
	database, err := databaseURL()
	if err != nil {
		return err
	}
	listener, err := net.Listen("tcp", setting("ADDR", "127.0.0.1:8080"))
	if err != nil {
		return fmt.Errorf("listen (ALPENGLOW_ADDR): %w", err)
	}
	return run(ctx, database, listener, func(ctx context.Context, s *store.Store) error {
		none, err := s.NoStaff(ctx)
		if err != nil || !none {
			return err
		}
		return printInvitation(ctx, s, "Nobody has an account yet.")
	}, nil)
}

// invite prints a link that makes an administrator's account, for when nobody can
// get in any more.
func invite(ctx context.Context, _ []string) error {
	return onDatabase(ctx, func(s *store.Store) error { return printInvitation(ctx, s, "") })
}

func printInvitation(ctx context.Context, s *store.Store, why string) error {
	path, err := web.InvitationPath(ctx, s, store.Invitation{Role: account.Administrator,
		Expires: time.Now().Add(account.FirstLasts)})
	if err != nil {
		return err
	}
	address := setting("PUBLIC_URL", "http://"+setting("ADDR", "127.0.0.1:8080"))
	fmt.Printf("\n%s\nThis link makes an administrator's account. It is good once, and for an hour:\n\n    %s%s\n\n",
		why, strings.TrimSuffix(address, "/"), path)
	return nil
}

// migrate brings the tables of ALPENGLOW_DATABASE_URL up to date.
func migrate(ctx context.Context, _ []string) error {
	return onDatabase(ctx, func(*store.Store) error { return nil })
}

// onDatabase brings the tables of ALPENGLOW_DATABASE_URL up to date and does something
// with them.
func onDatabase(ctx context.Context, work func(s *store.Store) error) error {
	database, err := databaseURL()
	if err != nil {
		return err
	}
	s, err := store.Open(ctx, database)
	if err != nil {
		return err
	}
	defer s.Close()
	if err := s.Migrate(ctx); err != nil {
		return err
	}
	return work(s)
}

func databaseURL() (string, error) {
	if database := setting("DATABASE_URL", ""); database != "" {
		return database, nil
	}
	return "", errors.New("ALPENGLOW_DATABASE_URL is not set: " +
		"give the PostgreSQL URL, or use alpenglow demo, which brings its own database")
}

// setting reads an environment variable ALPENGLOW_<name>.
func setting(name, otherwise string) string {
	if v := os.Getenv("ALPENGLOW_" + name); v != "" {
		return v
	}
	return otherwise
}

// run migrates, serves until ctx ends, and then finishes what was accepted.
// ready, if given, is called with the store before the first request; mailbox, if
// given, shows what has come into a made-up one.
func run(ctx context.Context, database string, listener net.Listener,
	ready func(context.Context, *store.Store) error, mailbox func() []web.Letter) error {
	log := slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level()}))
	slog.SetDefault(log)
	s, err := store.Open(ctx, database)
	if err != nil {
		return err
	}
	defer s.Close()
	if err := s.Migrate(ctx); err != nil {
		return err
	}
	if ready != nil {
		if err := ready(ctx, s); err != nil {
			return err
		}
	}
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(roomForGarbage)
	}
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(roomInAll)
	}
	registry := prometheus.NewRegistry()
	registry.MustRegister(collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	hub, err := live.New(s, log, registry)
	if err != nil {
		return err
	}
	self, err := os.Executable()
	if err != nil {
		return fmt.Errorf("find this program: %w", err)
	}
	if err := forget(ctx, s); err != nil {
		return err
	}
	go forgetHourly(ctx, s, log)
	config := web.Config{Store: s, Hub: hub, Log: log, Registry: registry, UI: ui.Built(), Stopping: ctx,
		PDF:      pdf.Reader{Command: []string{self, "pdf-pages"}},
		Pictures: apart.Reader{Command: []string{self, "picture"}}}
	if config.Illustrations, err = standin.NewIllustrations(); err != nil {
		return err
	}
	config.Rehearsal = func(code string, students int, board lesson.Board) web.Class {
		return standin.Start(ctx, standin.Options{URL: "http://" + listener.Addr().String(),
			Origin: setting("PUBLIC_URL", ""), Code: code, Students: students,
			Asked: standin.Questions(board), Pace: pace(), Seed: rand.Uint64(), Log: log})
	}
	if address := setting("SMTP_URL", ""); address != "" {
		sender, err := mail.New(address, s, log)
		if err != nil {
			return fmt.Errorf("ALPENGLOW_SMTP_URL: %w", err)
		}
		go sender.Run(ctx)
		config.Mail = sender
	}
	config.Mailbox = mailbox
	if public := setting("PUBLIC_URL", ""); public != "" {
		if config.PublicURL, err = url.Parse(strings.TrimSuffix(public, "/")); err != nil {
			return fmt.Errorf("ALPENGLOW_PUBLIC_URL: %w", err)
		}
	}
	if proxies := setting("TRUSTED_PROXIES", ""); proxies != "" {
		config.TrustedProxies = strings.Split(proxies, ",")
	}
	handler, err := web.New(config)
	if err != nil {
		return err
	}
	// Uploads set a time of their own.
	server := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 20 * time.Second,
		IdleTimeout: 2 * time.Minute}
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(countConnections(listener, fromOneAddress, fromAll)) }()
	log.Info("serving", "address", listener.Addr().String())
	go func() {
		if err := config.PDF.Warm(ctx); err != nil && ctx.Err() == nil {
			log.Warn("PDF files cannot be read", "error", err)
		}
	}()
	select {
	case err := <-failed:
		return fmt.Errorf("serve: %w", err)
	case <-ctx.Done():
	}
	log.Info("stopping")
	stop, cancel := context.WithTimeout(context.Background(), stopWithin)
	defer cancel()
	return errors.Join(hub.Close(stop), server.Shutdown(stop))
}

// forgetHourly goes on forgetting while the server runs.
func forgetHourly(ctx context.Context, s *store.Store, log *slog.Logger) {
	tick := time.NewTicker(time.Hour)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
			if err := forget(ctx, s); err != nil {
				log.Error("forget what is old", "error", store.Bare(err))
			}
		}
	}
}

// forget removes what was deleted long ago, and rehearsals that nobody ended.
func forget(ctx context.Context, s *store.Store) error {
	if err := s.ForgetBoards(ctx, time.Now().Add(-deletedLast)); err != nil {
		return err
	}
	if err := s.ForgetGuests(ctx, time.Now()); err != nil {
		return err
	}
	records, err := s.ForgetRecords(ctx, time.Now())
	for _, id := range records {
		err = errors.Join(err, s.Note(ctx, "", string(web.DidExpire), id, ""))
	}
	if err != nil {
		return err
	}
	stale, err := s.StalePractice(ctx, time.Now().Add(-24*time.Hour))
	for _, id := range stale {
		err = errors.Join(err, s.ForgetPractice(ctx, id))
	}
	return err
}

// pace is how slow the simulated class of a rehearsal is: ALPENGLOW_PACE, 1 for
// human pace.
func pace() float64 {
	if p, err := strconv.ParseFloat(setting("PACE", "1"), 64); err == nil && p > 0 {
		return p
	}
	return 1
}

// pdfPages reads a PDF on the standard input; the server starts it for each file.
func pdfPages(_ context.Context, args []string) error {
	first, err := strconv.Atoi(strings.Join(args, ""))
	if err != nil {
		return errors.New("usage: alpenglow pdf-pages FIRST <FILE, for the server's own use")
	}
	return child.Run(os.Stdin, os.Stdout, first)
}

// readPicture reads a picture on the standard input; the server starts it for each.
func readPicture(context.Context, []string) error { return apart.Child(os.Stdin, os.Stdout) }

// level is how much is logged: ALPENGLOW_LOG is debug, info, warn or error.
func level() slog.Level {
	var l slog.Level
	if err := l.UnmarshalText([]byte(setting("LOG", "info"))); err != nil {
		return slog.LevelInfo
	}
	return l
}
