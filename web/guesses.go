package web

import (
	"sync"
	"time"

	"golang.org/x/time/rate"
)

// allowance says how many failures are borne: at once, and then one in every
// interval; from one address, and from all together.
type allowance struct {
	addressAtOnce int
	addressEvery  time.Duration
	totalAtOnce   int
	totalEvery    time.Duration
}

// Only failures count, so a class of any size behind one address comes in as
// fast as it types; see docs/decisions/0003-guessing-codes.md for the figures.
var (
	codeGuesses   = allowance{addressAtOnce: 30, addressEvery: 2 * time.Second, totalAtOnce: 600, totalEvery: 200 * time.Millisecond}
	signInGuesses = allowance{addressAtOnce: 10, addressEvery: 6 * time.Second, totalAtOnce: 100, totalEvery: time.Second}
)

// guesses counts failures to name a secret, by address and in total.
type guesses struct {
	allowance
	mu        sync.Mutex
	total     *rate.Limiter
	addresses map[string]*rate.Limiter
}

func newGuesses(a allowance) *guesses {
	return &guesses{allowance: a, total: rate.NewLimiter(rate.Every(a.totalEvery), a.totalAtOnce), addresses: map[string]*rate.Limiter{}}
}

// mayTry says whether an address may try now.
func (g *guesses) mayTry(address string, now time.Time) bool {
	g.mu.Lock()
	defer g.mu.Unlock()
	known, ok := g.addresses[address]
	return g.total.TokensAt(now) >= 1 && (!ok || known.TokensAt(now) >= 1)
}

// failed counts a failure.
func (g *guesses) failed(address string, now time.Time) {
	g.mu.Lock()
	defer g.mu.Unlock()
	g.total.AllowN(now, 1)
	known, ok := g.addresses[address]
	if !ok {
		g.forget(now)
		known = rate.NewLimiter(rate.Every(g.addressEvery), g.addressAtOnce)
		g.addresses[address] = known
	}
	known.AllowN(now, 1)
}

// forget drops the addresses that have all their tries again, once there are many.
func (g *guesses) forget(now time.Time) {
	if len(g.addresses) < 10_000 {
		return
	}
	for address, l := range g.addresses {
		if l.TokensAt(now) >= float64(g.addressAtOnce) {
			delete(g.addresses, address)
		}
	}
}
