// Package standin holds small simulated stand-ins for what a school has
// outside: a class of students that joins a practice session through the
// public interface, and a search for illustrations.
package standin

import (
	"alpenglow/core/poll"
	"context"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"sync"
	"time"
)

// Options say what class is simulated.
type Options struct {
	// URL is the server's address, Code the join code of the session.
	URL  string
	Code string
	// Origin is the address that people have for the server, if that is another.
	Origin string
	// Students is how many join, 1 to 40.
	Students int
	// Asked gives questions as they were prepared, by their ids, so that a plausible share of
	// the class is right, and others make the known mistakes. Students guess the other ones.
	Asked map[string]poll.Question
	// Pace stretches all times: 1 for human pace, 0.01 for tests.
	Pace float64
	// Seed makes a class that does the same every time, as far as the network lets it.
	Seed uint64
	Log  *slog.Logger
}

// Class is a simulated class at work.
type Class struct {
	stop    context.CancelFunc
	working sync.WaitGroup

	mu     sync.Mutex
	paused chan struct{} // closed when the class may go on; nil while it may
}

// Start sends a class to a session. It works until it is stopped, or until the
// session ends.
func Start(ctx context.Context, o Options) *Class {
	ctx, stop := context.WithCancel(ctx)
	k := &Class{stop: stop}
	random := rand.New(rand.NewPCG(o.Seed, 29))
	for i := range o.Students {
		s := newStudent(o, i, rand.New(rand.NewPCG(o.Seed, uint64(i)+1)))
		// They come in over half a minute, as a class does.
		first := o.during(time.Duration(random.Float64() * 25 * float64(time.Second)))
		k.working.Go(func() {
			if !sleep(ctx, first) {
				return
			}
			if err := s.run(ctx, k); err != nil && ctx.Err() == nil && o.Log != nil {
				o.Log.Warn("a simulated student stopped", "error", err)
			}
		})
	}
	return k
}

// Pause lets the class rest, or go on.
func (k *Class) Pause(paused bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	switch {
	case paused && k.paused == nil:
		k.paused = make(chan struct{})
	case !paused && k.paused != nil:
		close(k.paused)
		k.paused = nil
	}
}

// Stop sends the class home and waits until it has gone.
func (k *Class) Stop() {
	k.stop()
	k.working.Wait()
}

// Wait waits until the class has gone by itself.
func (k *Class) Wait() { k.working.Wait() }

// rest waits while the class is paused; false when it is sent home.
func (k *Class) rest(ctx context.Context) bool {
	k.mu.Lock()
	waiting := k.paused
	k.mu.Unlock()
	if waiting == nil {
		return ctx.Err() == nil
	}
	select {
	case <-waiting:
		return true
	case <-ctx.Done():
		return false
	}
}

// during stretches a time to the pace of the class.
func (o Options) during(human time.Duration) time.Duration {
	return time.Duration(float64(human) * o.Pace)
}

func sleep(ctx context.Context, d time.Duration) bool {
	timer := time.NewTimer(d)
	defer timer.Stop()
	select {
	case <-timer.C:
		return true
	case <-ctx.Done():
		return false
	}
}

// names are made up, from many countries; none is on the demo's class list.
var names = []string{
	"Adaeze", "Benat", "Ciro", "Dagny", "Eero", "Fenna", "Goran", "Hyun", "Ioana", "Jarek", "Kalani", "Lior", "Maite",
	"Nils", "Odile", "Paavo",
	"Qamar", "Ruta", "Sanne", "Taavi", "Ulla", "Vasco", "Wren", "Ximena", "Yara", "Zoltan", "Anouk", "Bruna", "Casimir",
	"Dilara", "Elio", "Freya",
	"Gaspar", "Hedda", "Imre", "Jorun", "Kiran", "Leocadia", "Marek", "Nadia",
}

func nameOf(i int) string {
	if i < len(names) {
		return names[i]
	}
	return fmt.Sprintf("%s %d", names[i%len(names)], i/len(names)+1)
}
