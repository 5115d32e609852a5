package live

import (
	"maps"
	"sync"

	"alpenglow/core/lesson"
	"alpenglow/core/session"
)

// views are the frames of a session as the class may see them. Each is worked
// out once for a state, and kept, so that later only what has changed is told.
type views struct {
	mu     sync.Mutex
	rev    int64
	now    map[string]session.View
	before map[string]session.View
}

// of gives a frame as the class may see it in a state, which is not older than
// the last asked about.
func (v *views) of(state session.State, board lesson.Board, frame string) (session.View, error) {
	v.mu.Lock()
	defer v.mu.Unlock()
	v.turn(state.Rev)
	if known, ok := v.now[frame]; ok {
		return known, nil
	}
	view, err := state.View(board, frame, v.before[frame])
	if err == nil {
		v.now[frame] = view
	}
	return view, err
}

// past gives the frames as they were before a state, as far as anybody asked.
func (v *views) past(state session.State) map[string]session.View {
	v.mu.Lock()
	defer v.mu.Unlock()
	v.turn(state.Rev)
	return maps.Clone(v.before)
}

func (v *views) turn(rev int64) {
	if v.now != nil && rev == v.rev {
		return
	}
	if v.before == nil {
		v.before = map[string]session.View{}
	}
	maps.Copy(v.before, v.now)
	v.rev, v.now = rev, map[string]session.View{}
}
