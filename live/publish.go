package live

import (
	"encoding/json"
	"time"

	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

func now() int64 { return time.Now().UnixMilli() }

// The channels of a session: all staff, all students, one student.
func staffChannel(session string) string   { return "staff:" + session }
func classChannel(session string) string   { return "class:" + session }
func oneChannel(participant string) string { return "one:" + participant }

// publish tells the subscribers of a channel. News may be lost: clients notice
// by the numbers they carry, and ask.
func (h *Hub) publish(channel string, n News) { h.publishTo([]string{channel}, n) }

// publishTo tells the subscribers of several channels.
func (h *Hub) publishTo(channels []string, n News) {
	text, err := json.Marshal(n)
	for _, channel := range channels {
		if err == nil {
			_, err = h.node.Publish(channel, text)
		}
	}
	if err != nil {
		h.log.Error("publish", "kind", n.Kind, "error", err)
	}
}

// readers lists the channels of the students who may see the sheet of an owner.
func (r *running) readers(owner string) []string {
	if owner == sheet.ClassOwner {
		return []string{classChannel(r.kept.ID)}
	}
	n := sheet.GroupNumber(owner)
	if n == 0 {
		return []string{oneChannel(owner)}
	}
	var channels []string
	if groups := r.snapshot().Groups; n <= len(groups) {
		for _, member := range groups[n-1] {
			channels = append(channels, oneChannel(member))
		}
	}
	return channels
}

// publishChanges tells the staff and those students who may see the sheet, each
// what they may see. The caller holds the sheet's lock.
func (h *Hub) publishChanges(r *running, at *held, changes []sheet.Change) {
	news := SheetChanges{Sheet: at.key.ID, Frame: at.key.Frame, Owner: at.key.Owner}
	toStaff, toStudents := news, news
	// What one of those who share a sheet may see of it, all of them may.
	reader := sheet.Actor{ID: at.key.Owner}
	if at.key.Owner == sheet.ClassOwner || sheet.GroupNumber(at.key.Owner) > 0 {
		reader = sheet.Actor{}
	}
	worked := map[string]int64{}
	for _, c := range changes {
		toStaff.Changes = append(toStaff.Changes, sheet.View(c, sheet.Actor{Staff: true}))
		toStudents.Changes = append(toStudents.Changes, sheet.View(c, reader))
		worked[c.By] = c.At
		for _, e := range c.Put {
			if _, ok := worked[e.Author]; !ok {
				worked[e.Author] = 0 // their amount may have changed by somebody else's doing
			}
		}
	}
	for author, last := range worked {
		toStaff.Work = append(toStaff.Work, Work{Author: author, Frame: at.key.Frame, Marks: at.sheet.Amount(author), At: last})
	}
	h.publishTo(r.readers(at.key.Owner), News{Kind: NewsChanges, Changes: &toStudents})
	h.publish(staffChannel(r.kept.ID), News{Kind: NewsChanges, Changes: &toStaff})
}

// publishState tells the staff the state and the students concerned their
// stage. The caller holds the session's lock.
func (h *Hub) publishState(r *running, students []string) {
	state, board := r.state, r.kept.Content.V
	h.publish(staffChannel(r.kept.ID), News{Kind: NewsState, State: &state})
	tell := func(channels []string, student session.Student) {
		stage, err := state.For(board, student)
		if err != nil {
			h.log.Error("stage", "session", r.kept.ID, "error", err)
			return
		}
		h.publishTo(channels, News{Kind: NewsStage, Stage: &stage})
	}
	if state.Same(board) {
		tell([]string{classChannel(r.kept.ID)}, session.Student{})
		return
	}
	// Students on the same frame, and in the same group where that matters,
	// have the same stage.
	type same struct {
		frame string
		group int
	}
	alike := map[same][]string{}
	for _, id := range students {
		as := same{state.Place(board, r.student(id)), state.GroupOf(id)}
		alike[as] = append(alike[as], id)
	}
	for _, ids := range alike {
		channels := make([]string, len(ids))
		for i, id := range ids {
			channels[i] = oneChannel(id)
		}
		tell(channels, r.student(ids[0]))
	}
}
