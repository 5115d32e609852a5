package alike

import "slices"

// Varied picks whose work to look at so that each kind of idea is seen once: for each
// group of texts that say the same, from the largest to the smallest, somebody who is
// not picked yet; then those of texts that say what nobody else says. Texts lists all of
// them in an order of its own, owners says whose each is.
func Varied(groups []Group, texts []string, owners map[string]string) []string {
	picked, grouped := []string{}, map[string]bool{}
	pick := func(among []string) {
		for _, text := range among {
			if owner := owners[text]; owner != "" && !slices.Contains(picked, owner) {
				picked = append(picked, owner)
				return
			}
		}
	}
	bySize := slices.Clone(groups)
	slices.SortStableFunc(bySize, func(a, b Group) int { return len(b.Texts) - len(a.Texts) })
	for _, g := range bySize {
		pick(g.Texts)
		for _, text := range g.Texts {
			grouped[text] = true
		}
	}
	for _, text := range texts {
		if !grouped[text] {
			pick([]string{text})
		}
	}
	return picked
}
