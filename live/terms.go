package live

import (
	"slices"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/refusal"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

// termsFor gives what holds on a frame in a state of the session.
func termsFor(state session.State, board *edition, frame string) (sheet.Terms, error) {
	f, _, err := board.Frame(frame)
	if err != nil {
		return sheet.Terms{}, err
	}
	at := now()
	return sheet.Terms{Frame: f, Open: state.IsOpen(frame), Ended: state.Ended, Polls: state.Polls,
		Locked: state.FrameLocked(frame, at), LockedOut: state.LockedOut(at),
		Hold: state.HoldsOn(frame), HeldOf: state.Holds.Students, Watch: state.Holds.Watch(),
		Visited: state.Visited(frame), AtBoard: state.WhoIsAtBoard(frame, at),
		Lifted: state.Lifted, Taken: board.taken, Home: state.Home, Now: at}, nil
}

// mayGoOn refuses an operation of somebody whose seat was taken away, or who has
// taken more time of others than their rate allows.
func (r *running) mayGoOn(q *request) error {
	if q.actor.Staff {
		return nil
	}
	r.mu.RLock()
	p, seated := r.people[q.actor.ID], r.state.Seated(q.actor.ID)
	handed := r.state.Home.In(r.voices.Handed[q.actor.ID]) > 0
	r.mu.RUnlock()
	switch {
	case handed:
		return refusal.New(refusal.HomeworkIn)
	case p == nil || !seated:
		return refusal.New(refusal.JoinNeeded)
	case p.limit.TokensAt(time.Now()) < 0:
		q.stopped.Store(true)
		return refusal.New(refusal.TooMany)
	}
	return nil
}

// charge takes from a student's rate what an operation has cost beyond the one
// that was taken when it came. The rate may go below nothing; until it is above
// again, nothing more is decided.
func (r *running) charge(q *request, result sheet.Result, readers int) {
	if more := result.Charge(readers) - 1; more > 0 && !q.actor.Staff {
		if p := r.person(q.actor.ID); p != nil {
			p.limit.ReserveN(time.Now(), min(more, opsAtOnce))
		}
	}
}

// takenCost is what an operation counts that the log has had for so long that the
// sheet does not remember it: all that were decided with it are decided again.
const takenCost = 20

// chargeTaken takes that from a student's rate.
func (r *running) chargeTaken(q *request) {
	if p := r.person(q.actor.ID); p != nil {
		p.limit.ReserveN(time.Now(), takenCost)
	}
}

// readersOf counts about how many are told of changes on the sheet of an owner on a frame.
func (r *running) readersOf(frame, owner string, state session.State) int {
	if slices.Contains(state.Walked(frame), owner) {
		return r.present()
	}
	if n := sheet.GroupNumber(owner); n > 0 && n <= len(state.Groups) {
		return len(state.Groups[n-1]) + 1
	}
	if owner != sheet.ClassOwner {
		return 2
	}
	return r.present()
}

// sharing counts the students here who share the sheet of an owner.
func (r *running) sharing(owner string, state session.State) int {
	if n := sheet.GroupNumber(owner); n > 0 && n <= len(state.Groups) {
		return len(state.Groups[n-1])
	}
	if owner != sheet.ClassOwner {
		return 1
	}
	r.mu.RLock()
	defer r.mu.RUnlock()
	here := 0
	for _, p := range r.people {
		if p.connections > 0 {
			here++
		}
	}
	return here
}

// in gives the actor with the group that they are in now.
func in(state session.State, a sheet.Actor) sheet.Actor {
	a.Group = state.GroupOf(a.ID)
	return a
}

// owners says whose sheets a student works with on a frame: the one they share
// or their own, and their own where a poll is to be answered.
func owners(f lesson.Frame, a sheet.Actor) []string {
	shared := a.Owner(f.Arrangement)
	all := []string{}
	if shared != "" { // the lesson may have ended before they had a group
		all = append(all, shared)
	}
	if shared != a.ID && len(f.Polls()) > 0 {
		all = append(all, a.ID)
	}
	return all
}
