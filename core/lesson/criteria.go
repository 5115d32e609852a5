package lesson

import (
	"slices"

	"alpenglow/core/id"
	"alpenglow/core/refusal"
)

// Bounds of a grid of criteria.
const (
	MaxCriteria       = 12  // of a frame, or of the whole board
	MaxCriterion      = 80  // characters of a criterion
	MaxCriterionWords = 300 // characters of what work of one level looks like
	mostDescribed     = 12  // levels, those of older scales among them
)

// Criterion is one thing that is looked at when work is judged. The criteria of a frame, or of a whole board,
// and the levels of the school's scale make a grid.
type Criterion struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Words say, by the name of a level, what work of that level looks like.
	Words map[string]string `json:"words,omitempty"`
}

// CheckCriteria reports what is wrong with the criteria of a frame or a board.
func CheckCriteria(all []Criterion) error {
	if len(all) > MaxCriteria {
		return refusal.About(refusal.BoardIncorrect, "at most %d criteria", MaxCriteria)
	}
	seen := map[string]bool{}
	for _, c := range all {
		if !id.IsPlain(c.ID) || seen[c.ID] || len(c.Words) > mostDescribed {
			return refusal.About(refusal.BoardIncorrect, "each criterion needs an id of its own")
		}
		seen[c.ID] = true
		if name, err := ReadCalled(c.Name, MaxCriterion); err != nil || name != c.Name {
			return refusal.About(refusal.BoardIncorrect, "the name of a criterion")
		}
		for level, words := range c.Words {
			if err := checkText(level, MaxCriterion); err != nil {
				return err
			}
			if err := checkText(words, MaxCriterionWords); err != nil {
				return err
			}
		}
	}
	return nil
}

// CriteriaOf gives the criteria of a frame, or with "" those of the whole board.
func (b Board) CriteriaOf(frame string) []Criterion {
	if frame == "" {
		return b.Criteria
	}
	f, _, err := b.Frame(frame)
	if err != nil {
		return nil
	}
	return f.Criteria
}

// CriterionAmong finds a criterion.
func CriterionAmong(all []Criterion, id string) (Criterion, bool) {
	at := slices.IndexFunc(all, func(c Criterion) bool { return c.ID == id })
	if at < 0 {
		return Criterion{}, false
	}
	return all[at], true
}
