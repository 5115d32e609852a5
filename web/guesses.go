package web

import (
	"sync"
	"time"

	"golang.org/x/time/rate"
)

// allowance says how many failures are borne: at once, and then one in every interval.
type allowance struct {
	atOnce int
	every  time.Duration
}

// Only failures count, so a class of any size behind one address comes in as
// fast as it types; see docs/decisions/0003-guessing-codes.md for the figures.
// Nobody is refused for what others do, except that an address that has failed
// often is refused earlier while all together have failed very often.
var (
	codeGuesses   = allowance{atOnce: 30, every: 2 * time.Second}
	allGuesses    = allowance{atOnce: 600, every: 200 * time.Millisecond}
	signInGuesses = allowance{atOnce: 10, every: 6 * time.Second}         // for one account from one address
	addressSigns  = allowance{atOnce: 60, every: 2 * time.Second}         // from one address, a school's perhaps
	newFronts     = allowance{atOnce: 40, every: 10 * time.Second}        // screens of one school
	newGuests     = allowance{atOnce: 20, every: time.Minute}             // of one address
	guestMakes    = allowance{atOnce: 30, every: 5 * time.Minute}         // boards, lessons, files of one guest
	secondGuesses = allowance{atOnce: 20, every: time.Minute}             // codes of one account, from anywhere
	newResets     = allowance{atOnce: 5, every: 10 * time.Minute}         // of one address, and to one
	newBacks      = allowance{atOnce: 20, every: 2 * time.Second}         // what goes back, of one student
	newSeats      = allowance{atOnce: 320, every: 250 * time.Millisecond} // a hall at once, and a few after it
)

// guesses counts failures to name a secret, by who tries.
type guesses struct {
	allowance
	mu  sync.Mutex
	all *rate.Limiter // of everybody together; nil for no such limit
	by  map[string]*tries
}

// tries are one person's.
type tries struct {
	failures *rate.Limiter
	underWay int
}

func newGuesses(a allowance, all *allowance) *guesses {
	g := &guesses{allowance: a, by: map[string]*tries{}}
	if all != nil {
		g.all = rate.NewLimiter(rate.Every(all.every), all.atOnce)
	}
	return g
}

// waitsFor is how long somebody waits at most until it is known what became of the
// tries of others at the same address.
const waitsFor = 3 * time.Second

// try says whether somebody may try now. What is under way counts as failed until
// it is known: where that alone is in the way, it is waited for. Call done with
// what became of the try.
func (g *guesses) try(who string, now time.Time) (done func(failed bool), ok bool) {
	for end := now.Add(waitsFor); ; time.Sleep(5 * time.Millisecond) {
		done, wait := g.begin(who, now)
		if done != nil || !wait || time.Now().After(end) {
			return done, done != nil
		}
	}
}

// begin takes a try, or says whether one may be free when others are done.
func (g *guesses) begin(who string, now time.Time) (done func(failed bool), wait bool) {
	g.mu.Lock()
	defer g.mu.Unlock()
	t, known := g.by[who]
	if !known {
		g.forget(now)
		t = &tries{failures: rate.NewLimiter(rate.Every(g.every), g.atOnce)}
		g.by[who] = t
	}
	least := 1.0
	if g.all != nil && g.all.TokensAt(now) < 1 {
		least = float64(g.atOnce) / 2
	}
	if left := t.failures.TokensAt(now); left-float64(t.underWay) < least {
		return nil, left >= least
	}
	t.underWay++
	var once sync.Once
	return func(failed bool) {
		once.Do(func() {
			g.mu.Lock()
			defer g.mu.Unlock()
			t.underWay--
			if failed {
				t.failures.AllowN(now, 1)
				if g.all != nil {
					g.all.AllowN(now, 1)
				}
			}
		})
	}, false
}

// forget drops those who have all their tries again, once there are many.
func (g *guesses) forget(now time.Time) {
	if len(g.by) < 10_000 {
		return
	}
	for who, t := range g.by {
		if t.underWay == 0 && t.failures.TokensAt(now) >= float64(g.atOnce) {
			delete(g.by, who)
		}
	}
}
