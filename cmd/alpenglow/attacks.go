package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"
)

// attacks lets an ordinary lesson work while somebody with the join code, or the
// account of a teacher, does the dearest that the house lets them: it prints what
// the slowest answer in the lesson was meanwhile, and how much the server grew,
// and fails where that is more than it may be.
func attacks(ctx context.Context, args []string) error {
	t := trouble{classes: 1 + len(allAttacks), students: 10}
	flags := flag.NewFlagSet("attacks", flag.ContinueOnError)
	slowest := flags.Duration("slowest", 100*time.Millisecond, "how long an answer in the lesson may take")
	grown := flags.Int64("grown", 32, "by how many MiB of memory in use the server may grow")
	lasts := flags.Duration("lasts", 10*time.Second, "how long each attack goes on")
	only := flags.String("only", ".", "the attacks whose names match this")
	if err := flags.Parse(args); err != nil {
		return err
	}
	chosen, err := regexp.Compile(*only)
	if err != nil {
		return err
	}
	defer t.end()
	// Garbage is collected early, so that memory in use is mostly in use.
	os.Setenv("GOGC", "50")
	if err := t.begin(ctx); err != nil {
		return err
	}
	a := &assault{url: fmt.Sprintf("http://127.0.0.1:%d", t.port)}
	if err := a.signIn(ctx); err != nil {
		return err
	}
	// A password's hash takes 64 MiB until it is collected: it goes with this server.
	if err := t.killServer(ctx); err != nil {
		return err
	}
	// The first class is the ordinary lesson; the codes of the others are known to the attacker.
	lesson := t.pupils[:t.students]
	work, stop := context.WithCancel(ctx)
	defer stop()
	var all sync.WaitGroup
	for _, p := range lesson {
		all.Go(func() { p.live(work) })
	}
	t.pupils = lesson
	if _, err := t.untilBack(ctx, time.Now(), time.Minute); err != nil {
		return fmt.Errorf("at the start: %w", err)
	}
	server := meter{url: a.url}
	failed := false
	fmt.Println("| attack | what came of it | slowest answer in the lesson | the server grew by |")
	fmt.Println("| --- | --- | --- | --- |")
	for i, one := range allAttacks {
		a.code = codeOf(i + 1)
		if !chosen.MatchString(one.name) {
			continue
		}
		slowestOf(lesson)
		before, err := server.read(ctx)
		if err != nil {
			return err
		}
		watched, enough := context.WithCancel(ctx)
		most := make(chan int64, 1)
		go func() { most <- server.peak(watched) }()
		said, err := a.apart(ctx, one.name, *lasts)
		enough()
		if err != nil {
			return fmt.Errorf("%s: %w", one.name, err)
		}
		if _, err := t.untilBack(ctx, time.Now(), time.Minute); err != nil {
			return fmt.Errorf("%s: %w", one.name, err)
		}
		took := slowestOf(lesson)
		more := max(0, <-most-before.inUse) >> 20
		sign := ""
		if took > *slowest || more > *grown+one.more {
			failed, sign = true, " **"
		}
		fmt.Printf("| %s | %s | %v%s | %d MiB |\n", one.name, said, took.Round(time.Millisecond), sign, more)
	}
	stop()
	all.Wait()
	if failed {
		return errors.New("an attack costs others more than it may")
	}
	return nil
}

// apart carries out an attack in a process of its own: what it costs itself is
// not to slow down those who are measured.
func (a *assault) apart(ctx context.Context, name string, lasts time.Duration) (string, error) {
	self, err := os.Executable()
	if err != nil {
		return "", err
	}
	run := exec.CommandContext(ctx, self, "attack", a.url, a.code, a.teacher.cookie, name, lasts.String())
	run.Stderr = os.Stderr
	said, err := run.Output()
	return strings.TrimSpace(string(said)), err
}

// attackOnce is that process: it takes the address, the code of a lesson, the cookie
// of a teacher, the name of an attack and how long it lasts, and says what came of it.
func attackOnce(ctx context.Context, args []string) error {
	if len(args) != 5 {
		return errors.New("attack: it is started by attacks")
	}
	at := slices.IndexFunc(allAttacks, func(one attack) bool { return one.name == args[3] })
	lasts, err := time.ParseDuration(args[4])
	if at < 0 || err != nil {
		return fmt.Errorf("attack: no %q for %q", args[3], args[4])
	}
	a := &assault{url: args[0], code: args[1], teacher: &hostile{url: args[0], cookie: args[2]}}
	defer a.close()
	limited, cancel := context.WithTimeout(ctx, lasts)
	defer cancel()
	said, err := allAttacks[at].do(limited, a)
	if err != nil && limited.Err() == nil {
		return err
	}
	fmt.Println(said)
	return nil
}

// slowestOf gives the slowest answer since it was asked last.
func slowestOf(pupils []*pupil) time.Duration {
	var most time.Duration
	for _, p := range pupils {
		p.mu.Lock()
		most = max(most, p.slowest)
		p.slowest = 0
		// What still waits has taken as long already.
		for _, op := range p.outbox {
			most = max(most, time.Since(p.made[op.ID]))
		}
		p.mu.Unlock()
	}
	return most
}

// peak notes the most memory in use until ctx ends, in bytes.
func (m meter) peak(ctx context.Context) int64 {
	var most int64
	for ctx.Err() == nil {
		if r, err := m.read(ctx); err == nil {
			most = max(most, r.inUse)
		}
		select {
		case <-ctx.Done():
		case <-time.After(50 * time.Millisecond):
		}
	}
	return most
}
