package session_test

import (
	"testing"

	"alpenglow/core/agreed"
	"alpenglow/core/session"
)

// The interface works out by itself where students are, from what the staff is
// told. These cases hold both to the same rule; UPDATE=1 go test writes them anew.
func TestPlacesForTheInterface(t *testing.T) {
	type place struct {
		State session.State `json:"state"`
		At    string        `json:"at,omitempty"`
		Place string        `json:"place"`
		Open  []string      `json:"open"`
	}
	frames := []string{"one", "two", "three"}
	var places []place
	for _, before := range frames {
		for _, pace := range []session.Pace{session.Led, session.Own} {
			for _, through := range append(frames, "") {
				for _, looks := range frames {
					s, err := session.Start(board(), session.Led)
					for _, c := range []session.Command{goTo(before), setPace(pace, through), goTo(looks)} {
						if err == nil {
							s, err = s.Apply(board(), c, session.With{})
						}
					}
					if err != nil {
						t.Fatal(err)
					}
					for _, at := range append(frames, "") {
						p := place{State: s, At: at, Place: s.Place(board(), session.Student{ID: "a", At: at}),
							Open: []string{}}
						for _, f := range frames {
							if s.MayMove(board(), f) {
								p.Open = append(p.Open, f)
							}
						}
						places = append(places, p)
					}
				}
			}
		}
	}
	agreed.Holds(t, "testdata/places.json", places)
}
