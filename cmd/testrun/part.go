package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"time"
)

// part is one command of a run. It starts when those that it needs have come out well, and those that it follows are
// over, however they came out.
type part struct {
	name           string
	needs, follows []string
	dir            string
	env, args      []string
	// read gives the tests of what the command has written to standard output, or to the file results.
	read    func(output []byte) ([]test, error)
	results string

	took, processor time.Duration
	tests           []test
	problem         error
	skipped         bool
	output          []byte
	over            chan struct{}
}

// logs is where the output of each part lies.
const logs = ".local/testrun"

// run carries out parts side by side and says how each came out.
func run(ctx context.Context, parts []*part, env ...string) error {
	if err := os.MkdirAll(logs, 0o755); err != nil {
		return err
	}
	byName := map[string]*part{}
	for _, p := range parts {
		p.over = make(chan struct{})
		byName[p.name] = p
	}
	var all sync.WaitGroup
	var saying sync.Mutex
	for _, p := range parts {
		all.Go(func() {
			defer close(p.over)
			for _, name := range p.follows {
				<-byName[name].over
			}
			for _, name := range p.needs {
				before := byName[name]
				<-before.over
				p.skipped = p.skipped || before.skipped || before.problem != nil
			}
			if p.skipped || ctx.Err() != nil {
				p.skipped = true
				return
			}
			p.do(ctx, env)
			saying.Lock()
			defer saying.Unlock()
			p.say()
		})
	}
	all.Wait()
	report(parts)
	var bad []string
	for _, p := range parts {
		if p.problem != nil || p.skipped {
			bad = append(bad, p.name)
		}
	}
	if len(bad) > 0 {
		return fmt.Errorf("failed, or not begun because of that: %s", strings.Join(bad, ", "))
	}
	return ctx.Err()
}

func (p *part) do(ctx context.Context, env []string) {
	// What it writes can be read while it runs.
	log, err := os.Create(filepath.Join(logs, strings.ReplaceAll(p.name, " ", "-")+".log"))
	if err != nil {
		p.problem = err
		return
	}
	defer log.Close()
	var out, all bytes.Buffer
	cmd := exec.CommandContext(ctx, p.args[0], p.args[1:]...)
	// Asked to end in good order, it stops what it has started itself.
	cmd.Cancel = func() error { return cmd.Process.Signal(os.Interrupt) }
	cmd.WaitDelay = 20 * time.Second
	cmd.Dir, cmd.Env = p.dir, append(append(os.Environ(), env...), p.env...)
	said := io.MultiWriter(&all, log)
	cmd.Stdout, cmd.Stderr = io.MultiWriter(&out, log), said
	if p.read == nil || p.results != "" {
		cmd.Stdout = said
	}
	begun := time.Now()
	p.problem = cmd.Run()
	p.took = time.Since(begun)
	if cmd.ProcessState != nil {
		p.processor = cmd.ProcessState.UserTime() + cmd.ProcessState.SystemTime()
	}
	p.output = all.Bytes()
	if p.read == nil {
		return
	}
	written := out.Bytes()
	if p.results != "" {
		written, err = os.ReadFile(filepath.Join(p.dir, p.results))
	}
	if err == nil {
		p.tests, err = p.read(written)
	}
	if err == nil && len(p.tests) == 0 {
		err = errors.New("no test was run")
	}
	if p.problem == nil {
		p.problem = err
	}
}

// say tells in a line that the part is over, and what it wrote where it failed.
func (p *part) say() {
	if p.problem == nil {
		fmt.Printf("%-22s %s\n", p.name, spent(p.took))
		return
	}
	fmt.Printf("%-22s FAILED after %s: %v\n", p.name, spent(p.took), p.problem)
	for _, t := range p.tests {
		if t.failed {
			fmt.Printf("--- %s\n%s\n", t.name, t.output)
		}
	}
	fmt.Printf("%s\n", p.output)
}

// spent writes a time to a tenth of a second.
func spent(d time.Duration) string { return fmt.Sprintf("%.1f s", d.Seconds()) }
