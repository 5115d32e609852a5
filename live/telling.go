package live

import (
	"encoding/json"
	"slices"
	"strings"
	"sync"
	"time"

	"alpenglow/core/audience"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
	"alpenglow/store"
)

func now() int64 { return time.Now().UnixMilli() }

// The channels of a session: all staff, all students, one student, the front screens, and
// all students for the work along which they walk.
func staffChannel(session string) string   { return "staff:" + session }
func classChannel(session string) string   { return "class:" + session }
func oneChannel(participant string) string { return "one:" + participant }
func frontChannel(session string) string   { return "front:" + session }
func walkChannel(session string) string    { return "walk:" + session }

// telling is news for some channels.
type telling struct {
	channels []string
	news     News
}

const (
	// maxTelling is how much news of one session waits to be told. What comes
	// beyond is left out: clients notice by the numbers, and ask.
	maxTelling = 10_000
	// maxJoined is up to how many bytes, about, changes are told as one.
	maxJoined = 24 << 10
	// maxNews is how many bytes one piece of news may have; of longer changes
	// only their number is told, and clients ask for them in portions.
	maxNews = 128 << 10
)

// teller tells what happens in a session in the order in which it happened,
// outside all locks, so that nobody waits until it is told.
type teller struct {
	mu      sync.Mutex
	waiting []telling
	at      bool // somebody is telling
}

// tell puts news in line. News may be lost: clients notice by the numbers they
// carry, and ask.
func (h *Hub) tell(r *running, news ...telling) {
	t := &r.news
	t.mu.Lock()
	defer t.mu.Unlock()
	for _, n := range news {
		if len(t.waiting) >= maxTelling {
			h.metrics.untold.Inc()
			break
		}
		if len(n.channels) > 0 {
			t.waiting = append(t.waiting, n)
		}
	}
	if !t.at && len(t.waiting) > 0 {
		t.at = true
		go h.tellAll(r)
	}
}

func (h *Hub) tellAll(r *running) {
	t := &r.news
	for {
		t.mu.Lock()
		some := t.waiting
		t.waiting = nil
		if len(some) == 0 {
			t.at = false
			t.mu.Unlock()
			return
		}
		t.mu.Unlock()
		for _, n := range joined(some) {
			h.guard("telling", func() { h.publish(n) })
		}
	}
}

// joined makes one of changes that follow each other on one sheet for the same
// channels, as long as nothing else is told between and it does not grow long.
func joined(some []telling) []telling {
	out := some[:0:0]
	at, size := map[string]int{}, map[string]int{}
	for _, n := range some {
		if n.news.Kind != NewsChanges {
			clear(at)
			clear(size)
			out = append(out, n)
			continue
		}
		key := n.news.Changes.Sheet + strings.Join(n.channels, " ")
		more := 0
		for _, c := range n.news.Changes.Changes {
			for _, m := range c.Put {
				more += sheet.Size(m)
			}
		}
		i, ok := at[key]
		if !ok || size[key]+more > maxJoined {
			at[key], size[key] = len(out), more
			out = append(out, n)
			continue
		}
		size[key] += more
		first := *out[i].news.Changes
		first.Changes = append(first.Changes[:len(first.Changes):len(first.Changes)], n.news.Changes.Changes...)
		first.Work = append(first.Work[:len(first.Work):len(first.Work)], n.news.Changes.Work...)
		first.Seq = n.news.Changes.Seq
		out[i].news.Changes = &first
	}
	return out
}

func (h *Hub) publish(n telling) {
	text, err := json.Marshal(n.news)
	if c := n.news.Changes; err == nil && c != nil && len(text) > maxNews {
		short := *c
		short.Changes = []sheet.Change{}
		n.news.Changes = &short
		text, err = json.Marshal(n.news)
	}
	for _, channel := range n.channels {
		if err == nil {
			_, err = h.node.Publish(channel, text)
		}
	}
	if err != nil {
		h.log.Error("publish", "kind", n.news.Kind, "error", err)
	}
}

// readers lists the channels of the students who share the sheet of an owner;
// the caller holds the session's lock.
func (r *running) readers(owner string) []string {
	if owner == sheet.ClassOwner {
		return []string{classChannel(r.kept.ID)}
	}
	n := sheet.GroupNumber(owner)
	if n == 0 {
		return []string{oneChannel(owner)}
	}
	var channels []string
	if groups := r.state.Groups; n <= len(groups) {
		for _, member := range groups[n-1] {
			channels = append(channels, oneChannel(member))
		}
	}
	return channels
}

// changesFor gives what the staff and the students are told of changes that a
// sheet has taken, each what they may see.
func (r *running) changesFor(key store.SheetKey, sh *sheet.Sheet, done []accepted) []telling {
	r.mu.RLock()
	defer r.mu.RUnlock()
	news := func(who audience.Audience) News {
		c := SheetChanges{Sheet: key.ID, Frame: key.Frame, Owner: key.Owner}
		for _, a := range done {
			c.Changes = append(c.Changes, who.Change(sh, a.result.Change))
			c.Seq = a.result.Change.Seq
		}
		return News{Kind: NewsChanges, Changes: &c}
	}
	toStaff := news(audience.Staff())
	worked := map[string]int64{}
	held := map[string]bool{}
	for _, a := range done {
		c := a.result.Change
		worked[c.By] = c.At
		for _, e := range c.Put {
			if _, ok := worked[e.Author]; !ok {
				worked[e.Author] = 0 // their amount may have changed by somebody else's doing
			}
		}
		for _, author := range audience.Held(c) {
			held[author] = true
		}
	}
	for author, last := range worked {
		toStaff.Changes.Work = append(
			toStaff.Changes.Work,
			Work{Author: author, Frame: key.Frame, At: last,
				Marks: r.know.altogether(on{author, key.Frame}, key.ID, sh.Amount(author))},
		)
	}
	told := []telling{{[]string{staffChannel(r.kept.ID)}, toStaff}}
	if front, shown := r.onFront(key); shown {
		told = append(told, telling{[]string{frontChannel(r.kept.ID)}, news(front)})
	}
	if !audience.Sharing(key.Owner).Sheet(key.Owner, r.state.IsOpen(key.Frame)) {
		return told
	}
	// Whose notes are held sees more than the others, and is told before them.
	for author := range held {
		// Whose remark waits may look here no more.
		sees := audience.Of(in(r.state, sheet.Actor{ID: author})).Walking(r.state.Walked(key.Frame))
		if author != key.Owner && sees.Sheet(key.Owner, r.state.IsOpen(key.Frame)) {
			told = append(told, telling{[]string{oneChannel(author)}, news(audience.Student(author, 0))})
		}
	}
	told = append(told, telling{r.readers(key.Owner), news(audience.Sharing(key.Owner))})
	if walked := r.state.Walked(key.Frame); slices.Contains(walked, key.Owner) {
		told = append(told, telling{[]string{walkChannel(r.kept.ID)},
			News{Kind: NewsWalk, Walk: news(audience.Class().Walking(walked)).Changes}})
	}
	return told
}

// stateFor gives what is told of the state: to the staff all of it, and to the
// students concerned their stage; was is the board before. The caller holds the
// session's lock.
func (r *running) stateFor(was *edition, students []string) []telling {
	state, board := r.state, r.board.Board
	news := News{Kind: NewsState, State: &state}
	if r.board != was {
		reworked := reworked(was.Board, board, state)
		news = News{Kind: NewsBoard, Board: &reworked}
	}
	told := []telling{{[]string{staffChannel(r.kept.ID)}, news}}
	before := r.views.past(state)
	if stage, err := r.frontStage(state, before); err == nil && r.fronts+r.looks > 0 {
		told = append(told, telling{[]string{frontChannel(r.kept.ID)}, News{Kind: NewsFront, Front: &stage}})
	}
	tell := func(channels []string, student session.Student) {
		v, err := r.views.of(state, board, state.Place(board, student))
		if err != nil {
			return
		}
		stage := state.Stage(board, student, v).Changed(v.Since(before[v.Frame.ID]))
		told = append(told, telling{channels, News{Kind: NewsStage, Stage: &stage}})
	}
	if len(students) == 0 {
		return told
	}
	if state.Same(board) {
		tell([]string{classChannel(r.kept.ID)}, session.Student{})
		return told
	}
	// Students on the same frame, in the same group where that matters, locked or not, who
	// talk with the same others, have the same stage.
	type same struct {
		frame  string
		group  int
		locked bool
		until  int64
		talks  string
		due    int64
	}
	alike, order := map[same][]string{}, []same{}
	for _, id := range students {
		as := same{state.Place(board, r.student(id)), state.GroupOf(id), slices.Contains(state.Locks.Students, id),
			state.Locks.Until[id], "", 0}
		if state.Home != nil {
			as.due = state.Home.Due(id)
		}
		if with, talks := state.TalksWith(id); talks {
			as.talks = strings.Join(with, " ")
		}
		if _, ok := alike[as]; !ok {
			order = append(order, as)
		}
		alike[as] = append(alike[as], id)
	}
	for _, as := range order {
		ids := alike[as]
		channels := make([]string, len(ids))
		for i, id := range ids {
			channels[i] = oneChannel(id)
		}
		tell(channels, r.student(ids[0]))
	}
	return told
}
