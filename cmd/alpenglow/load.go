package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"runtime/debug"
	"slices"
	"strings"
	"sync"
	"time"
)

// loadOptions say what load is put on which server.
type loadOptions struct {
	url               string
	classes, students int
	seconds           int
	rate              float64
	database          string
	databasePID       int
	relay             bool
	header, idle      bool
}

// load lets N classes work on a running server through its public interface,
// measures, and compares what every client was told with the database.
func load(ctx context.Context, args []string) error {
	var o loadOptions
	flags := flag.NewFlagSet("load", flag.ContinueOnError)
	flags.StringVar(&o.url, "url", "http://127.0.0.1:8080", "address of the server")
	flags.IntVar(&o.classes, "classes", 10, "number of classes")
	flags.IntVar(&o.students, "students", 30, "students in a class")
	flags.IntVar(&o.seconds, "seconds", 60, "how long they work")
	flags.Float64Var(&o.rate, "rate", 1, "operations a second of one student")
	flags.StringVar(&o.database, "database", "", "PostgreSQL URL, to compare with (left out: no comparison)")
	flags.IntVar(&o.databasePID, "database-pid", 0, "process of PostgreSQL, to measure it (left out: not measured)")
	flags.BoolVar(&o.relay, "relay", false, "the server is a bare relay (alpenglow relay), the yardstick")
	flags.BoolVar(&o.header, "header", false, "print the heading of the table first")
	flags.BoolVar(&o.idle, "idle", false, "only connect, and print what an idle student costs in memory")
	if err := flags.Parse(args); err != nil {
		return err
	}
	// The generator shares the machine with what it measures: it collects its
	// garbage only when memory runs short.
	debug.SetGCPercent(-1)
	debug.SetMemoryLimit(4 << 30)
	if o.idle {
		return o.runIdle(ctx)
	}
	if o.header {
		fmt.Println("| server | classes x students | ops/s | deliveries/s | seen p50 / p95 / p99 ms | " +
			"acknowledged p50 / p95 / p99 ms | " +
			"server CPU | database CPU | server MiB | database MiB | lost / double / refused |")
		fmt.Println("| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |")
	}
	r, err := o.run(ctx)
	if err != nil {
		return err
	}
	fmt.Println(r.row(o))
	if r.lost+r.double+r.refused > 0 {
		return fmt.Errorf("%d operations lost, %d double, %d refused", r.lost, r.double, r.refused)
	}
	return nil
}

// report is what a run measured.
type report struct {
	seen, acked                []time.Duration
	ops                        int
	took                       time.Duration
	serverCPU, databaseCPU     float64 // cores
	serverMemory, databaseMem  int64   // bytes
	lost, double, refused      int
	checkedClients, checkedOps int
}

// rest is how long the server comes to rest after everybody has joined, and
// tidy how long until it has surely collected its garbage (Go does so every
// two minutes at the latest).
const (
	rest = 5 * time.Second
	tidy = 125 * time.Second
)

// runIdle connects everybody to a server that nobody else uses, and prints by
// how much the memory in use has grown, garbage not counted.
func (o loadOptions) runIdle(ctx context.Context) error {
	server := meter{url: o.url}
	time.Sleep(tidy)
	before, err := server.read(ctx)
	if err != nil {
		return fmt.Errorf("read the server's metrics: %w", err)
	}
	clients, _, err := o.seated(ctx)
	if err != nil {
		return err
	}
	defer hangUp(clients)
	time.Sleep(tidy)
	after, err := server.read(ctx)
	if err != nil {
		return err
	}
	fmt.Printf("An idle student costs the server %.1f KiB of memory (%d connected; "+
		"heap and stacks in use %.1f MiB before, %.1f MiB after).\n\n",
		float64(after.inUse-before.inUse)/float64(len(clients))/1024, len(clients), float64(before.inUse)/(1<<20),
		float64(after.inUse)/(1<<20))
	return nil
}

// seated lets all students join and connect, and waits until the server rests.
func (o loadOptions) seated(ctx context.Context) ([]*client, []*class, error) {
	classes, err := o.gather(ctx)
	if err != nil {
		return nil, nil, err
	}
	var clients []*client
	for _, k := range classes {
		clients = append(clients, k.clients...)
	}
	select {
	case <-time.After(rest):
		return clients, classes, nil
	case <-ctx.Done():
		return nil, nil, ctx.Err()
	}
}

func hangUp(clients []*client) {
	for _, c := range clients {
		c.conn.Close()
	}
}

func (o loadOptions) run(ctx context.Context) (report, error) {
	var r report
	server := meter{url: o.url}
	clients, classes, err := o.seated(ctx)
	if err != nil {
		return r, err
	}
	defer hangUp(clients)
	idle, err := server.read(ctx)
	if err != nil {
		return r, fmt.Errorf("read the server's metrics: %w", err)
	}
	databaseBefore := processTreeCPU(o.databasePID)

	start := time.Now()
	end := start.Add(time.Duration(o.seconds) * time.Second)
	var working sync.WaitGroup
	for i, c := range clients {
		first := start.Add(time.Duration(float64(i) / float64(len(clients)) / o.rate * float64(time.Second)))
		working.Go(func() { c.work(ctx, first, end, time.Duration(float64(time.Second)/o.rate)) })
	}
	working.Wait()
	r.took = time.Since(start)
	after, err := server.read(ctx)
	if err != nil {
		return r, err
	}
	r.serverCPU = (after.cpu - idle.cpu) / r.took.Seconds()
	r.serverMemory = after.memory
	r.databaseCPU = (processTreeCPU(o.databasePID) - databaseBefore) / r.took.Seconds()
	r.databaseMem = processTreeMemory(o.databasePID)
	settle(classes, 20*time.Second)
	for _, c := range clients {
		c.mu.Lock()
		r.seen, r.acked = append(r.seen, c.seen...), append(r.acked, c.acked...)
		r.ops += c.sent
		r.refused += c.refused
		r.double += c.double
		r.lost += c.sent - c.refused - len(c.acked)
		c.mu.Unlock()
	}
	if o.database != "" {
		err = o.compare(ctx, classes, &r)
	}
	slices.Sort(r.seen)
	slices.Sort(r.acked)
	return r, err
}

// settle waits until everybody has seen the last change of their class, or
// nothing more comes.
func settle(classes []*class, atMost time.Duration) {
	deadline := time.Now().Add(atMost)
	for time.Now().Before(deadline) {
		done := true
		for _, k := range classes {
			saved := 0
			for _, c := range k.clients {
				c.mu.Lock()
				saved += len(c.acked)
				c.mu.Unlock()
			}
			for _, c := range k.clients {
				c.mu.Lock()
				done = done && c.waiting == 0 && int(c.seq) >= saved
				c.mu.Unlock()
			}
		}
		if done {
			return
		}
		time.Sleep(100 * time.Millisecond)
	}
}

func (r report) row(o loadOptions) string {
	name := "Alpenglow"
	if o.relay {
		name = "bare relay"
	}
	per := func(n int) string { return fmt.Sprintf("%.0f", float64(n)/r.took.Seconds()) }
	mib := func(n int64) string {
		if n == 0 {
			return "–"
		}
		return fmt.Sprint(n >> 20)
	}
	cores := func(c float64) string {
		if c == 0 {
			return "–"
		}
		return fmt.Sprintf("%.2f", c)
	}
	return "| " + strings.Join([]string{
		name, fmt.Sprintf("%d x %d", o.classes, o.students), per(r.ops), per(len(r.seen)), percentiles(r.seen),
		percentiles(r.acked),
		cores(r.serverCPU), cores(r.databaseCPU), mib(r.serverMemory), mib(r.databaseMem),
		fmt.Sprintf("%d / %d / %d", r.lost, r.double, r.refused),
	}, " | ") + " |"
}

// percentiles gives p50, p95 and p99 (nearest rank) of sorted times in milliseconds.
func percentiles(sorted []time.Duration) string {
	if len(sorted) == 0 {
		return "–"
	}
	at := func(share float64) string {
		i := min(len(sorted)-1, int(share*float64(len(sorted))))
		return fmt.Sprintf("%.1f", float64(sorted[i].Microseconds())/1000)
	}
	return at(.50) + " / " + at(.95) + " / " + at(.99)
}

var errNoDemo = errors.New("the server has no demo data: start it with alpenglow demo")
