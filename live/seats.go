package live

import (
	"net"
	"slices"
	"sync"

	"alpenglow/core/refusal"
	"alpenglow/core/sheet"

	"github.com/centrifugal/centrifuge"
	"golang.org/x/time/rate"
)

// How many connections one person, a student's seat or a teacher's sign-in, and
// one address may have.
const (
	maxForPerson  = 8
	maxForAddress = 2000 // a school behind one address
)

// seat is the place of a connection: the session and who is on it.
type seat struct {
	session *running
	actor   sheet.Actor
	// front says that it is a front screen, own that it is one on the teacher's own
	// device, looks that it is only the small picture of one.
	front, own, looks bool
	// asks is how often a front screen may ask.
	asks *rate.Limiter
	// login is the sign-in of a teacher, or the device of a front screen; address
	// where the connection comes from.
	login, address string
}

// person is whose connections count together.
func (s seat) person() string {
	switch {
	case s.own: // many small pictures do not close the lesson itself
		return ownFront(s.login)
	case s.actor.Staff || s.front:
		return s.login
	}
	return s.actor.ID
}

func ownFront(login string) string { return "front " + login }

// seats are the connections there are, by person, the oldest first.
type seats struct {
	mu        sync.Mutex
	people    map[string][]*centrifuge.Client
	addresses map[string]int
}

// full reports whether an address has as many connections as it may.
func (s *seats) full(address string) bool {
	s.mu.Lock()
	defer s.mu.Unlock()
	// This machine's own address is a proxy's, which keeps order itself.
	ip := net.ParseIP(address)
	return ip != nil && !ip.IsLoopback() && s.addresses[address] >= maxForAddress
}

// add notes a connection, and gives those that have to make room for it: the
// oldest, because a device that comes back may not have closed them.
func (s *seats) add(at seat, c *centrifuge.Client) (over []*centrifuge.Client) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.people == nil {
		s.people, s.addresses = map[string][]*centrifuge.Client{}, map[string]int{}
	}
	s.addresses[at.address]++
	all := append(s.people[at.person()], c)
	// Each is closed once, however long that takes.
	if n := len(all) - maxForPerson; n > 0 {
		over, all = slices.Clone(all[:n]), slices.Clone(all[n:])
	}
	s.people[at.person()] = all
	return over
}

func (s *seats) drop(at seat, c *centrifuge.Client) {
	s.mu.Lock()
	defer s.mu.Unlock()
	left := slices.DeleteFunc(s.people[at.person()], func(o *centrifuge.Client) bool { return o == c })
	if s.people[at.person()] = left; len(left) == 0 {
		delete(s.people, at.person())
	}
	if s.addresses[at.address]--; s.addresses[at.address] <= 0 {
		delete(s.addresses, at.address)
	}
}

func (s *seats) of(person string) []*centrifuge.Client {
	s.mu.Lock()
	defer s.mu.Unlock()
	return slices.Clone(s.people[person])
}

// Connections with which a device does not come back by itself are closed with
// one of these codes.
var (
	closeBadConnect = centrifuge.Disconnect{Code: 4500, Reason: string(refusal.Malformed)}
	closeSignIn     = centrifuge.Disconnect{Code: 4501, Reason: string(refusal.SignInNeeded)}
	closeJoin       = centrifuge.Disconnect{Code: 4502, Reason: string(refusal.JoinNeeded)}
	closeFront      = centrifuge.Disconnect{Code: 4504, Reason: string(refusal.FrontGone)}
	closeOver       = centrifuge.Disconnect{Code: 4503, Reason: string(refusal.TooManyTabs)}
	closeFull       = centrifuge.Disconnect{Code: 4001, Reason: string(refusal.TooMany)} // the device tries again
)

// CloseSeat ends the connections of a participant who has no seat any more.
func (h *Hub) CloseSeat(participant string) { h.closeAll(participant, closeJoin) }

// CloseFront ends the connections of the device of a front screen.
func (h *Hub) CloseFront(device string) { h.closeAll(device, closeFront) }

// CloseLogin ends the connections of a teacher's sign-in that is over.
func (h *Hub) CloseLogin(login string) {
	h.closeAll(login, closeSignIn)
	h.closeAll(ownFront(login), closeFront)
}

func (h *Hub) closeAll(person string, why centrifuge.Disconnect) {
	if person == "" {
		return
	}
	for _, c := range h.seats.of(person) {
		go c.Disconnect(why)
	}
}
