package alike_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"alpenglow/core/alike"
)

func TestBands(t *testing.T) {
	texts := []alike.Counted{{"a", 0, 50}, {"b", 3, 10}, {"c", 1, 40}, {"d", 9, 20}, {"e", 2, 30}, {"f", 0, 10}}
	if got := fmt.Sprint(alike.ByAgreement(texts)); got != "[{6 9 [d]} {3 3 [b]} {1 2 [c e]} {0 0 [a f]}]" {
		t.Error(got)
	}
	if got := fmt.Sprint(alike.ByTime(texts)); got != "[{10 50 [b f d e c a]}]" {
		t.Error(got)
	}
	if got := fmt.Sprint(alike.ByAgreement(nil), alike.ByTime(nil)); got != "[] []" {
		t.Error(got)
	}
}

// However many there are: each text is in one band of each kind, there are four at most,
// and later bands came later.
func TestBandsOfAnything(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for n := range 80 {
		texts := make([]alike.Counted, n)
		for i := range texts {
			texts[i] = alike.Counted{ID: fmt.Sprint(i), Agreed: random.IntN(12), At: random.Int64N(40)}
		}
		for _, bands := range [][]alike.Band{alike.ByAgreement(texts), alike.ByTime(texts)} {
			in := map[string]bool{}
			for _, b := range bands {
				for _, id := range b.Texts {
					in[id] = true
				}
			}
			if len(in) != n || len(bands) > 4 {
				t.Fatalf("%d texts: %d in %d bands", n, len(in), len(bands))
			}
		}
		times := alike.ByTime(texts)
		for i := 1; i < len(times); i++ {
			if times[i].From < times[i-1].To {
				t.Fatalf("%v", times)
			}
		}
	}
}
