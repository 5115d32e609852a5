package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"maps"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"sync"
	"syscall"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/paper"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/demo"
	"alpenglow/store"
	"alpenglow/store/private"
	"alpenglow/web"
)

// trouble is a house in which things go wrong: a cluster and a server that can be
// killed and started again, and between them and the clients a wire that can be cut.
type trouble struct {
	classes, students, times int
	down                     time.Duration // how long the database is away

	folder  string // all of it
	dir     string // the cluster's data
	cluster *private.Cluster
	server  *exec.Cmd
	port    int
	wire    *cutWire
	pupils  []*pupil
	back    map[string][]time.Duration // by kind of fault, how long until each client was back
}

// faults lets classes work while the server is killed, the database stopped, and
// connections are cut; afterwards it compares what was acknowledged with what is
// stored, and every client's picture with the database's.
func faults(ctx context.Context, args []string) error {
	t := trouble{back: map[string][]time.Duration{}}
	flags := flag.NewFlagSet("faults", flag.ContinueOnError)
	flags.IntVar(&t.classes, "classes", 30, "classes")
	flags.IntVar(&t.students, "students", 30, "students of each")
	flags.IntVar(&t.times, "times", 20, "how often each fault happens")
	flags.DurationVar(&t.down, "down", 20*time.Second, "how long the database is away")
	if err := flags.Parse(args); err != nil {
		return err
	}
	defer t.end()
	if err := t.begin(ctx); err != nil {
		return err
	}
	work, stop := context.WithCancel(ctx)
	defer stop()
	var all sync.WaitGroup
	for _, p := range t.pupils {
		all.Go(func() { p.live(work) })
	}
	if _, err := t.untilBack(ctx, time.Now(), time.Minute); err != nil {
		return fmt.Errorf("at the start: %w", err)
	}
	for i := range t.times {
		for _, fault := range []struct {
			name string
			do   func(context.Context) error
		}{{"server killed", t.killServer}, {"database stopped", t.stopDatabase}, {"connections cut", t.cutAll}} {
			if err := fault.do(ctx); err != nil {
				return fmt.Errorf("%s: %w", fault.name, err)
			}
			up := time.Now()
			took, err := t.untilBack(ctx, up, 2*time.Minute)
			if err != nil {
				return fmt.Errorf("%s: %w", fault.name, err)
			}
			t.back[fault.name] = append(t.back[fault.name], took...)
			fmt.Fprintf(os.Stderr, "%d. %s: back after %s ms\n", i+1, fault.name, percentiles(took))
			// What was done meanwhile arrives as well before the next fault: each is measured alone.
			if _, err := t.untilBack(ctx, time.Now(), 2*time.Minute); err != nil {
				return fmt.Errorf("after %s: %w", fault.name, err)
			}
			time.Sleep(500 * time.Millisecond)
		}
	}
	for _, p := range t.pupils {
		p.rest()
	}
	if _, err := t.untilBack(ctx, time.Now(), time.Minute); err != nil {
		return err
	}
	time.Sleep(2 * time.Second) // the last news
	err := t.compare(ctx)
	stop()
	all.Wait()
	return err
}

// end stops what begin has started, as far as it came.
func (t *trouble) end() {
	if t.server != nil && t.server.Process != nil {
		t.server.Process.Kill()
		t.server.Wait()
	}
	if t.cluster != nil {
		t.cluster.Stop()
	}
	if t.folder != "" {
		os.RemoveAll(t.folder)
	}
}

// begin starts a cluster, makes the classes and starts the server and the wire to it.
func (t *trouble) begin(ctx context.Context) error {
	var err error
	if t.folder, err = os.MkdirTemp("/var/tmp", "alpenglow-trouble-"); err != nil {
		return err
	}
	os.Chmod(t.folder, 0o755)
	t.dir = filepath.Join(t.folder, "data")
	if t.cluster, err = private.Start(ctx, private.Options{Dir: t.dir}); err != nil {
		return err
	}
	s, err := store.Open(ctx, t.cluster.URL)
	if err != nil {
		return err
	}
	defer s.Close()
	if err := s.Migrate(ctx); err != nil {
		return err
	}
	password, err := web.HashPassword(demo.Password)
	if err != nil {
		return err
	}
	teacher := store.Teacher{Email: "ines@ternharbour.example", Name: "Ines Aldana", Password: password}
	if err := s.AddTeacher(ctx, &teacher); err != nil {
		return err
	}
	board := lesson.Board{Title: "Moon and tides",
		Frames: []lesson.Frame{{ID: store.NewID(), Paper: paper.Paper{Kind: paper.Plain},
			Arrangement: lesson.WholeClass, Permission: lesson.Add, Prepared: []lesson.Element{}}}}
	id, err := s.AddBoard(ctx, teacher.ID, board)
	if err != nil {
		return err
	}
	free, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return err
	}
	t.port = free.Addr().(*net.TCPAddr).Port
	free.Close()
	if err := t.startServer(ctx); err != nil {
		return err
	}
	if t.wire, err = newCutWire(t.port); err != nil {
		return err
	}
	o := loadOptions{url: fmt.Sprintf("http://127.0.0.1:%d", t.port)}
	for k := range t.classes {
		state, err := session.Start(board, session.Led)
		if err != nil {
			return err
		}
		n := store.Session{TeacherID: teacher.ID, State: store.JSON[session.State]{V: state}, Code: codeOf(k)}
		if err := s.StartSession(ctx, &n, id, board); err != nil {
			return err
		}
		for i := range t.students {
			cookie, in, err := o.joinWith(ctx, n.Code, fmt.Sprint("Student ", i))
			if err != nil {
				return err
			}
			t.pupils = append(t.pupils, newPupil(t.wire.url(), cookie, in))
		}
	}
	return nil
}

// codeOf gives a join code for each number.
func codeOf(n int) string {
	const symbols = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"
	code := []byte("KKKKKK")
	for i := range code {
		code[i] = symbols[n%len(symbols)]
		n /= len(symbols)
	}
	return string(code)
}

func (t *trouble) startServer(ctx context.Context) error {
	self, err := os.Executable()
	if err != nil {
		return err
	}
	t.server = exec.Command(self, "serve")
	t.server.Env = append(os.Environ(), "ALPENGLOW_DATABASE_URL="+t.cluster.URL,
		fmt.Sprintf("ALPENGLOW_ADDR=127.0.0.1:%d", t.port), "ALPENGLOW_LOG=error")
	t.server.Stderr = io.Discard
	t.server.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	if err := t.server.Start(); err != nil {
		return err
	}
	return t.ready(ctx)
}

func (t *trouble) ready(ctx context.Context) error {
	for range 600 {
		response, err := http.Get(fmt.Sprintf("http://127.0.0.1:%d/readyz", t.port))
		if err == nil {
			response.Body.Close()
			if response.StatusCode == http.StatusOK {
				return nil
			}
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(50 * time.Millisecond):
		}
	}
	return errors.New("the server does not come up")
}

func (t *trouble) killServer(ctx context.Context) error {
	if err := t.server.Process.Signal(syscall.SIGKILL); err != nil {
		return err
	}
	t.server.Wait()
	time.Sleep(300 * time.Millisecond)
	return t.startServer(ctx)
}

func (t *trouble) stopDatabase(ctx context.Context) error {
	port := t.cluster.Port
	if err := t.cluster.Stop(); err != nil {
		return err
	}
	time.Sleep(t.down)
	var err error
	if t.cluster, err = private.Start(ctx, private.Options{Dir: t.dir, Port: port}); err != nil {
		return err
	}
	return t.ready(ctx)
}

func (t *trouble) cutAll(context.Context) error {
	for range 5 {
		t.wire.cut()
		time.Sleep(100 * time.Millisecond)
	}
	return nil
}

// untilBack waits until every client is connected and what it did before a time
// is acknowledged, and says how long that took for each, sorted.
func (t *trouble) untilBack(ctx context.Context, before time.Time, patience time.Duration) ([]time.Duration, error) {
	var took []time.Duration
	away := slices.Clone(t.pupils)
	for end := time.Now().Add(patience); ; {
		away = slices.DeleteFunc(away, func(p *pupil) bool {
			back := p.caughtUp(before)
			if back {
				took = append(took, time.Since(before))
			}
			return back
		})
		if len(away) == 0 {
			return took, nil
		}
		if time.Now().After(end) {
			return nil, fmt.Errorf("%d students are not back, one is %s", len(away), away[0].state())
		}
		select {
		case <-ctx.Done():
			return nil, ctx.Err()
		case <-time.After(20 * time.Millisecond):
		}
	}
}

// compare holds what was acknowledged, and every client's picture, against the
// database, and prints the counts.
func (t *trouble) compare(ctx context.Context) error {
	s, err := store.Open(ctx, t.cluster.URL)
	if err != nil {
		return err
	}
	defer s.Close()
	acked, lost, differ, connects := 0, 0, 0, 0
	refused := map[refusal.Code]int{}
	sheets := map[string]map[string]string{}
	for _, p := range t.pupils {
		stored, ok := sheets[p.sheet]
		if !ok {
			if stored, err = picture(ctx, s, p.sheet); err != nil {
				return err
			}
			sheets[p.sheet] = stored
		}
		p.mu.Lock()
		taken, err := s.Taken(ctx, p.sheet, slices.Collect(maps.Keys(p.acked)))
		if err != nil {
			p.mu.Unlock()
			return err
		}
		acked += len(p.acked)
		lost += len(p.acked)
		for _, op := range taken { // the log has each operation once at most
			if op.Seq == p.acked[op.Op] {
				lost--
			}
		}
		if !samePicture(p.marks, stored) {
			differ++
		}
		for code, n := range p.refused {
			refused[code] += n
		}
		connects += p.connects
		p.mu.Unlock()
	}
	fmt.Printf("%d classes of %d; each fault %d times, the database away for %v\n", t.classes, t.students, t.times,
		t.down)
	fmt.Printf("acknowledged %d; lost or double %d; refused for good %v; pictures that differ %d of %d; "+
		"connections %d\n", acked, lost, refused, differ, len(t.pupils), connects)
	for _, name := range []string{"server killed", "database stopped", "connections cut"} {
		took := slices.Sorted(slices.Values(t.back[name]))
		if n := len(took); n > 0 {
			fmt.Printf("%s: clients back after p50 / p95 / p99 %s ms, %v at most\n", name, percentiles(took),
				took[n-1].Round(time.Millisecond))
		}
	}
	if lost+differ+len(refused) > 0 || acked == 0 {
		return errors.New("what was acknowledged and what is stored differ")
	}
	return nil
}
