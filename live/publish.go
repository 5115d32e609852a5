package live

import (
	"encoding/json"
	"time"

	"alpenglow/core/sheet"
)

func now() int64 { return time.Now().UnixMilli() }

// The channels of a session: all staff, all students, one student.
func staffChannel(session string) string   { return "staff:" + session }
func classChannel(session string) string   { return "class:" + session }
func oneChannel(participant string) string { return "one:" + participant }

// publish tells the subscribers of a channel. News may be lost: clients notice
// by the numbers they carry, and ask.
func (h *Hub) publish(channel string, n News) {
	text, err := json.Marshal(n)
	if err == nil {
		_, err = h.node.Publish(channel, text)
	}
	if err != nil {
		h.log.Error("publish", "kind", n.Kind, "error", err)
	}
}

// publishChanges tells the staff and those students who may see the sheet, each
// what they may see. The caller holds the sheet's lock.
func (h *Hub) publishChanges(r *running, at *held, changes []sheet.Change) {
	news := SheetChanges{Sheet: at.key.ID, Frame: at.key.Frame, Owner: at.key.Owner}
	toStaff, toStudents := news, news
	reader, channel := sheet.Actor{ID: at.key.Owner}, oneChannel(at.key.Owner)
	if at.key.Owner == sheet.ClassOwner {
		reader, channel = sheet.Actor{}, classChannel(r.kept.ID)
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
	h.publish(channel, News{Kind: NewsChanges, Changes: &toStudents})
	h.publish(staffChannel(r.kept.ID), News{Kind: NewsChanges, Changes: &toStaff})
}

// publishState tells the staff the state and the class its stage. The caller
// holds the session's lock.
func (h *Hub) publishState(r *running) {
	state := r.state
	h.publish(staffChannel(r.kept.ID), News{Kind: NewsState, State: &state})
	stage, err := state.ForClass(r.kept.Content.V)
	if err != nil {
		h.log.Error("stage", "session", r.kept.ID, "error", err)
		return
	}
	h.publish(classChannel(r.kept.ID), News{Kind: NewsStage, Stage: &stage})
}
