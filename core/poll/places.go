package poll

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"alpenglow/core/id"
	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// KindPlaces asks to point at places in a picture.
const KindPlaces Kind = "places"

// Bounds of a picture with areas: how many there are, how many corners one has, and at how
// many places somebody points.
const (
	MaxAreas   = 20
	MaxCorners = 60
	MaxPoints  = 10
)

// Places is a question with a picture at which one points. Areas are the teacher's; a class
// sees them once they are revealed. Most is at how many places somebody may point.
type Places struct {
	Picture string `json:"picture"`
	Areas   []Area `json:"areas,omitempty"`
	Most    int    `json:"most"`
}

// Area is a part of the picture, by its corners: shares of its width and height. It is
// right to point there, or it is a known mistake with a name.
type Area struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Corners []Point `json:"corners"`
	Right   bool    `json:"right,omitempty"`
	Mistake string  `json:"mistake,omitempty"`
}

// Point is a place in a picture: shares of its width from the left, and of its height from
// the top, from 0 to 1.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Pointed is an answer to it.
type Pointed struct {
	At []Point `json:"at"`
}

func (p Point) check() error {
	if !(p.X >= 0 && p.X <= 1 && p.Y >= 0 && p.Y <= 1) {
		return refusal.New(refusal.OutOfFrame)
	}
	return nil
}

// holds says whether a place lies in an area (even-odd rule: a ray to the right crosses
// its edge an odd number of times).
func (a Area) holds(p Point) bool {
	inside := false
	for i, from := range a.Corners {
		to := a.Corners[(i+1)%len(a.Corners)]
		if (from.Y > p.Y) != (to.Y > p.Y) && p.X < from.X+(p.Y-from.Y)*(to.X-from.X)/(to.Y-from.Y) {
			inside = !inside
		}
	}
	return inside
}

func (q *Places) check() error {
	if q.Most < 1 || q.Most > MaxPoints || len(q.Areas) > MaxAreas {
		return refusal.About(refusal.BoardIncorrect, "1 to %d places, and at most %d areas", MaxPoints, MaxAreas)
	}
	if q.Picture == "" {
		return refusal.New(refusal.NoSuchPicture)
	}
	seen := map[string]bool{}
	for _, a := range q.Areas {
		if !id.IsPlain(a.ID) || seen[a.ID] || len(a.Corners) < 3 || len(a.Corners) > MaxCorners {
			return refusal.About(refusal.BoardIncorrect, "an area has an id of its own and 3 to %d corners", MaxCorners)
		}
		seen[a.ID] = true
		if err := cmp.Or(prose.Check(a.Name, MaxLabel), prose.Check(a.Mistake, MaxMistake)); err != nil {
			return err
		}
		for _, corner := range a.Corners {
			if err := corner.check(); err != nil {
				return err
			}
		}
	}
	return nil
}

func (q *Places) words() []string    { return nil }
func (q *Places) pictures() []string { return []string{q.Picture} }
func (q *Places) shown(rename func(string) string) Body {
	return Body{Kind: KindPlaces, Places: &Places{rename(q.Picture), q.Areas, q.Most}}
}
func (q *Places) bare() Body {
	return Body{Kind: KindPlaces, Places: &Places{Picture: q.Picture, Most: q.Most}}
}

func (q *Places) nameless() Body {
	seen := Places{Picture: q.Picture, Most: q.Most}
	for _, a := range q.Areas {
		if a.Right {
			a.Mistake = ""
			seen.Areas = append(seen.Areas, a)
		}
	}
	return Body{Kind: KindPlaces, Places: &seen}
}

func (q *Places) right() string {
	var names []string
	for i, a := range q.Areas {
		if a.Right {
			names = append(names, cmp.Or(strings.TrimSpace(a.Name), fmt.Sprintf("#%d", i+1)))
		}
	}
	return strings.Join(names, ", ")
}

func (q *Places) takes(v Value) error {
	if len(v.Places.At) == 0 {
		return refusal.New(refusal.AnswerEmpty)
	}
	if len(v.Places.At) > q.Most {
		return refusal.About(refusal.NoSuchChoice, "at most %d places", q.Most)
	}
	for _, p := range v.Places.At {
		if err := p.check(); err != nil {
			return err
		}
	}
	return nil
}

// area gives the area that holds a place: a right one before a mistake where they overlap;
// nil of a place in none.
func (q *Places) area(p Point) *Area {
	var found *Area
	for i := range q.Areas {
		a := &q.Areas[i]
		if a.holds(p) &&
			(found == nil || a.Right && !found.Right || found.Mistake == "" && !found.Right && a.Mistake != "") {
			found = a
		}
	}
	return found
}

// judge: as many right areas as may be pointed at are to be found; a place elsewhere
// takes one of them away.
func (q *Places) judge(v Value) Judgement {
	rights := 0
	for _, a := range q.Areas {
		if a.Right {
			rights++
		}
	}
	if rights == 0 {
		return Judgement{}
	}
	hit, found, mistake := map[string]bool{}, 0, ""
	for _, p := range v.Places.At {
		switch a := q.area(p); {
		case a != nil && a.Right:
			if !hit[a.ID] {
				hit[a.ID] = true
				found++
			}
		default:
			found--
			if a != nil && mistake == "" {
				mistake = a.Mistake
			}
		}
	}
	return part(found, min(rights, q.Most), mistake)
}

// says the names of the areas, and else the place in percent from the left and the top.
func (q *Places) says(v Value) string {
	words := make([]string, len(v.Places.At))
	for i, p := range v.Places.At {
		words[i] = fmt.Sprintf("%.0f %%, %.0f %%", p.X*100, p.Y*100)
		if a := q.area(p); a != nil && a.Name != "" {
			words[i] = a.Name
		}
	}
	return strings.Join(words, "; ")
}

func (q *Places) chart(values []Value, _ []Judgement) Chart {
	points := &Points{Picture: q.Picture, At: []Point{}}
	for _, a := range q.Areas {
		points.Areas = append(points.Areas, AreaCount{Area: a})
	}
	for _, v := range values {
		for _, p := range v.Places.At {
			points.At = append(points.At, p)
			if a := q.area(p); a != nil {
				for i := range points.Areas {
					if points.Areas[i].ID == a.ID {
						points.Areas[i].Count++
					}
				}
			}
		}
	}
	slices.SortFunc(points.At, func(a, b Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	return Chart{Kind: ChartPoints, Points: points}
}
