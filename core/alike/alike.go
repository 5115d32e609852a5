// Package alike answers: which of many short texts say the same? It compares words, or
// where a language's stems are not known, runs of three letters, weighs those more that
// few texts have, and joins what is close: TF-IDF, cosine, average linkage. It does not
// understand; docs/insight.md says how far it goes.
package alike

import (
	"cmp"
	"maps"
	"slices"
	"strings"
)

// Text is one of the texts, by an id.
type Text struct{ ID, Words string }

// Group is texts that say alike, in the order of their likeness to all of them. Name is
// a phrase of theirs, Likeness how alike two of them are on average, from 0 to 1;
// Unsure says that this is little.
type Group struct {
	Name     string   `json:"name"`
	Texts    []string `json:"texts"`
	Likeness float64  `json:"likeness"`
	Unsure   bool     `json:"unsure,omitempty"`
}

const (
	// cut is the distance, 1 less the cosine, at which groups are no longer joined;
	// found on the written-out classes of the test.
	cut = 0.66
	// sure is how alike two texts of a group are at least, on average, for it to be sure.
	sure = 0.5
)

// Groups gives the texts that say alike, the largest group first; those that are like
// no other are in none. The language is a BCP 47 tag. It does not depend on the order
// of the texts.
func Groups(texts []Text, language string) []Group {
	texts = slices.Clone(texts)
	slices.SortFunc(texts, func(a, b Text) int {
		return cmp.Or(
			cmp.Compare(folded(a.Words), folded(b.Words)),
			cmp.Compare(a.Words, b.Words),
			cmp.Compare(a.ID, b.ID),
		)
	})
	tokens := make([][]string, len(texts))
	for i, t := range texts {
		tokens[i] = Tokens(t.Words, language)
	}
	v := vectors(tokens)
	like := make([][]float64, len(texts))
	far := make([][]float64, len(texts))
	for i := range texts {
		like[i], far[i] = make([]float64, len(texts)), make([]float64, len(texts))
		for j := range i {
			c := Cosine(v[i], v[j])
			like[i][j], like[j][i] = c, c
			far[i][j], far[j][i] = 1-c, 1-c
		}
	}
	var groups []Group
	for _, at := range joined(far, cut) {
		if len(at) < 2 {
			continue
		}
		groups = append(groups, group(texts, tokens, like, at, language))
	}
	slices.SortStableFunc(groups, func(a, b Group) int { return cmp.Compare(len(b.Texts), len(a.Texts)) })
	return groups
}

func group(texts []Text, tokens [][]string, like [][]float64, at []int, language string) Group {
	near := make(map[int]float64, len(at))
	sum := 0.0
	for _, i := range at {
		for _, j := range at {
			if i != j {
				near[i] += like[i][j]
			}
		}
		sum += near[i]
	}
	slices.SortStableFunc(at, func(a, b int) int { return cmp.Compare(near[b], near[a]) })
	g := Group{Likeness: sum / float64(len(at)*(len(at)-1))}
	g.Unsure = g.Likeness < sure
	words := make([]string, len(at))
	for i, n := range at {
		g.Texts = append(g.Texts, texts[n].ID)
		words[i] = texts[n].Words
	}
	g.Name = phrase(words, language)
	return g
}

// maxName is how many characters a name has at most, longestPhrase how many words.
const (
	maxName       = 48
	longestPhrase = 5
)

// phrase gives words that follow each other in most of some texts: those that are in
// most, and of these the longest; without any, the beginning of the first text.
func phrase(texts []string, language string) string {
	type found struct {
		as    string
		texts int
		size  int
	}
	all := map[string]*found{}
	for _, t := range texts {
		w := spoken(t)
		seen := map[string]bool{}
		for i := range w {
			for n := 1; n <= longestPhrase && i+n <= len(w); n++ {
				as := strings.Join(w[i:i+n], " ")
				key := strings.ToLower(as)
				if seen[key] || len([]rune(as)) > maxName || empty(w[i], language) || empty(w[i+n-1], language) {
					continue
				}
				seen[key] = true
				if all[key] == nil {
					all[key] = &found{as: as}
				}
				size := 0
				for _, x := range w[i : i+n] {
					if !empty(x, language) {
						size++
					}
				}
				all[key].texts, all[key].size = all[key].texts+1, size
			}
		}
	}
	best, score := "", 0
	for _, key := range slices.SortedFunc(maps.Keys(all), func(a, b string) int {
		return cmp.Or(cmp.Compare(len(a), len(b)), cmp.Compare(a, b))
	}) {
		f := all[key]
		// A phrase of a single text is no phrase of theirs.
		if s := f.texts * f.size; f.texts > 1 && s > score {
			best, score = f.as, s
		}
	}
	if best == "" && len(texts) > 0 {
		best = strings.TrimSpace(texts[0])
		if r := []rune(best); len(r) > maxName {
			best = string(r[:maxName-1]) + "…"
		}
	}
	return best
}
