package live

import (
	"fmt"
	"strings"
	"testing"

	"alpenglow/core/sheet"
)

// Changes are told as one where they may be, and never to somebody they were not
// for: who left a group is in no later telling, who joined it in no earlier one.
func TestJoined(t *testing.T) {
	changes := func(on string, seq int64, channels ...string) telling {
		return telling{channels, News{Kind: NewsChanges, Changes: &SheetChanges{Sheet: on, Seq: seq,
			Changes: []sheet.Change{{Seq: seq}}}}}
	}
	state := telling{[]string{"staff:s"}, News{Kind: NewsState}}
	for name, c := range map[string]struct {
		some []telling
		want string
	}{
		"one sheet": {[]telling{changes("a", 1, "one:x"), changes("a", 2, "one:x")}, "a[1 2]one:x"},
		"two sheets between each other": {[]telling{changes("a", 1, "one:x"), changes("b", 1, "one:x"),
			changes("a", 2, "one:x")}, "a[1 2]one:x b[1]one:x"},
		"something else between": {[]telling{changes("a", 1, "one:x"), state, changes("a", 2, "one:x")},
			"a[1]one:x staff:s a[2]one:x"},
		"one left": {[]telling{changes("a", 1, "one:x", "one:y"), changes("a", 2, "one:x")},
			"a[1]one:x,one:y a[2]one:x"},
		"one came": {[]telling{changes("a", 1, "one:x"), changes("a", 2, "one:x", "one:y")},
			"a[1]one:x a[2]one:x,one:y"},
	} {
		var got []string
		for _, n := range joined(c.some) {
			said := strings.Join(n.channels, ",")
			if on := n.news.Changes; on != nil {
				seqs := []int64{}
				for _, change := range on.Changes {
					seqs = append(seqs, change.Seq)
				}
				said = fmt.Sprintf("%s%d%s", on.Sheet, seqs, said)
			}
			got = append(got, said)
		}
		if s := strings.Join(got, " "); s != c.want {
			t.Errorf("%s: %s, not %s", name, s, c.want)
		}
	}
}
