package alike

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/kljensen/snowball/english"
)

// Figures that other libraries computed (testdata/checks.json names them): Snowball's
// English stems, cosines by smoothed TF-IDF, heights of average linkage.
func TestChecks(t *testing.T) {
	text, err := os.ReadFile("testdata/checks.json")
	if err != nil {
		t.Fatal(err)
	}
	var checks map[string]struct {
		Input    json.RawMessage
		Expected json.RawMessage
	}
	if err := json.Unmarshal(text, &checks); err != nil {
		t.Fatal(err)
	}
	read := func(id string, input, expected any) {
		t.Helper()
		if err := json.Unmarshal(checks[id].Input, input); err != nil {
			t.Fatal(id, err)
		}
		if err := json.Unmarshal(checks[id].Expected, expected); err != nil {
			t.Fatal(id, err)
		}
	}
	var words []string
	var stems map[string]string
	read("Snowball English stems", &words, &stems)
	for _, w := range words {
		if got := english.Stem(w, true); got != stems[w] {
			t.Errorf("the stem of %s: %s, want %s", w, got, stems[w])
		}
	}
	var docs struct{ Docs []string }
	var cosines []float64
	read("tf-idf cosine, smoothed idf", &docs, &cosines)
	tokens := make([][]string, len(docs.Docs))
	for i, d := range docs.Docs {
		tokens[i] = strings.Fields(d)
	}
	v := vectors(tokens)
	got := []float64{Cosine(v[0], v[1]), Cosine(v[0], v[2]), Cosine(v[1], v[2]), Cosine(v[0], v[3])}
	if !close(got, cosines) {
		t.Errorf("cosines: %v, want %v", got, cosines)
	}
	var table struct{ Distance [][]float64 }
	var heights []float64
	read("linkage average five objects", &table, &heights)
	if got := heightsOf(table.Distance); !close(got, heights) {
		t.Errorf("heights: %v, want %v", got, heights)
	}
	for _, id := range []string{"answer clusters, raw tokens", "answer clusters, stop words removed, English stems"} {
		var answers struct{ Tokens [][]string }
		var want struct {
			Heights []float64
			Groups  [][]int `json:"groups_at_0_4_0_5_0_6_0_7"`
		}
		read(id, &answers, &want)
		if got := heightsOf(jaccard(answers.Tokens)); !close(got, want.Heights) {
			t.Errorf("%s: %v, want %v", id, got, want.Heights)
		}
		for i, below := range []float64{.4, .5, .6, .7} {
			of := make([]int, len(answers.Tokens))
			for g, at := range joined(jaccard(answers.Tokens), below) {
				for _, n := range at {
					of[n] = g + 1
				}
			}
			if !reflect.DeepEqual(of, want.Groups[i]) {
				t.Errorf("%s at %g: %v, want %v", id, below, of, want.Groups[i])
			}
		}
	}
}

func heightsOf(far [][]float64) []float64 {
	var heights []float64
	for _, m := range Linkage(far) {
		heights = append(heights, m.Height)
	}
	return heights
}

func jaccard(tokens [][]string) [][]float64 {
	far := make([][]float64, len(tokens))
	for i, a := range tokens {
		far[i] = make([]float64, len(tokens))
		for j, b := range tokens {
			both := 0
			for _, w := range a {
				if slices.Contains(b, w) {
					both++
				}
			}
			far[i][j] = 1 - float64(both)/float64(len(a)+len(b)-both)
		}
	}
	return far
}

func close(a, b []float64) bool {
	return slices.EqualFunc(a, b, func(x, y float64) bool { return math.Abs(x-y) < 1e-9 })
}

// Classes whose notes a person has sorted.
var classes = []struct {
	language string
	groups   [][]string
	rest     []string
}{
	{"en", [][]string{
		{"The Moon pulls the water", "the moon is pulling at the water", "Because the Moon pulls water up",
			"Water is pulled by the Moon"},
		{"The Earth turns once a day", "earth turns around in one day", "because the Earth is turning every day"},
		{"There are two high tides", "two high tides a day", "I see two high tides each day"},
	}, []string{"I don't know", "Wind"}},
	{"de", [][]string{
		{"Der Mond zieht das Wasser an", "Das Wasser wird vom Mond angezogen", "der Mond zieht am Wasser"},
		{"Die Erde dreht sich", "weil die Erde sich dreht", "die Erde dreht sich jeden Tag"},
	}, []string{"keine Ahnung"}},
}

func TestGroups(t *testing.T) {
	for _, c := range classes {
		var texts []Text
		want := map[string]int{}
		for g, group := range c.groups {
			for _, words := range group {
				texts = append(texts, Text{words, words})
				want[words] = g + 1
			}
		}
		for _, words := range c.rest {
			texts = append(texts, Text{words, words})
		}
		groups := Groups(texts, c.language)
		for _, g := range groups {
			for _, id := range g.Texts[1:] {
				if want[id] != want[g.Texts[0]] {
					t.Errorf("%s: %q and %q are not alike", c.language, id, g.Texts[0])
				}
			}
			said := false
			for _, id := range g.Texts {
				said = said || strings.Contains(strings.ToLower(id), strings.ToLower(g.Name))
			}
			if !said || g.Name == "" {
				t.Errorf("%q is no phrase of %q", g.Name, g.Texts)
			}
			t.Logf("%q %.2f %v %q", g.Name, g.Likeness, g.Unsure, g.Texts)
		}
		if len(groups) != len(c.groups) {
			t.Errorf("%s: %d groups, want %d: %+v", c.language, len(groups), len(c.groups), groups)
		}
	}
}

// Whatever is written: groups do not depend on the order, nobody is in two, and the
// same words are always together.
func TestGroupsProperties(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 1))
	for range 60 {
		texts := some(r, 2+r.IntN(60))
		language := []string{"en", "de", "fr", "ar", ""}[r.IntN(5)]
		groups := Groups(texts, language)
		mixed := slices.Clone(texts)
		r.Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
		if again := Groups(mixed, language); !reflect.DeepEqual(groups, again) {
			t.Fatalf("another order, other groups:\n%v\n%v", groups, again)
		}
		of := map[string]int{}
		for i, g := range groups {
			if g.Likeness < 0 || g.Likeness > 1+1e-9 || len(g.Texts) < 2 {
				t.Fatalf("%+v", g)
			}
			for _, id := range g.Texts {
				if of[id] != 0 {
					t.Fatal("in two groups", id)
				}
				of[id] = i + 1
			}
		}
		same := map[string]int{}
		for _, x := range texts {
			if g, ok := same[x.Words]; ok && g != of[x.ID] {
				t.Fatalf("the same words %q in two groups", x.Words)
			}
			if len(Tokens(x.Words, language)) > 0 {
				same[x.Words] = of[x.ID]
			}
		}
	}
	if Groups(nil, "en") != nil || Groups([]Text{{"a", "alone"}}, "en") != nil {
		t.Error("of nothing something")
	}
	all := make([]Text, 200)
	for i := range all {
		all[i] = Text{fmt.Sprint(i), "the same note"}
	}
	if g := Groups(all, "en"); len(g) != 1 || len(g[0].Texts) != 200 || g[0].Unsure {
		t.Errorf("200 times the same: %d groups", len(g))
	}
}

func some(r *rand.Rand, n int) []Text {
	words := strings.Fields(
		"moon pulls water tide high low day earth turns sun wind sea rises falls twice الماء يرتفع 水 Mond zieht é",
	)
	texts := make([]Text, n)
	for i := range texts {
		var w []string
		for range r.IntN(8) {
			w = append(w, words[r.IntN(len(words))])
		}
		texts[i] = Text{fmt.Sprint(i), strings.Join(w, " ")}
	}
	return texts
}

func BenchmarkGroups300(b *testing.B) {
	texts := some(rand.New(rand.NewPCG(1, 1)), 300)
	for b.Loop() {
		Groups(texts, "en")
	}
}
