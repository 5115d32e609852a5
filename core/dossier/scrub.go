package dossier

import "encoding/json"

// Gone stands where somebody was who has been erased.
const Gone = "gone"

// Scrub takes a person, by their id, out of something that is kept as JSON: what they
// have made (an object whose author or by they are, in a list) goes, they themselves go
// from lists and as keys, and anywhere else "gone" stands for them. It reports whether
// they were in it. What is no JSON stays as it is.
func Scrub(text []byte, id string) (scrubbed []byte, was bool) {
	var value any
	if json.Unmarshal(text, &value) != nil {
		return text, false
	}
	s := scrubber{id: id}
	value = s.walk(value)
	if !s.found {
		return text, false
	}
	scrubbed, err := json.Marshal(value)
	if err != nil {
		return text, false
	}
	return scrubbed, true
}

type scrubber struct {
	id    string
	found bool
}

// theirs reports whether an entry of a list is the person, or of their making.
func (s *scrubber) theirs(v any) bool {
	switch v := v.(type) {
	case string:
		return v == s.id
	case map[string]any:
		for _, key := range []string{"author", "student", "id"} {
			if v[key] == s.id {
				return true
			}
		}
		// A question is of whoever asked it; a mark that was changed by somebody is not theirs.
		_, made := v["author"]
		return !made && v["by"] == s.id
	}
	return false
}

func (s *scrubber) walk(v any) any {
	switch v := v.(type) {
	case string:
		if v == s.id {
			s.found = true
			return Gone
		}
	case []any:
		kept := v[:0]
		for _, e := range v {
			if s.theirs(e) {
				s.found = true
				continue
			}
			kept = append(kept, s.walk(e))
		}
		return kept
	case map[string]any:
		for key, e := range v {
			if key == s.id {
				s.found = true
				delete(v, key)
				continue
			}
			v[key] = s.walk(e)
		}
	}
	return v
}
