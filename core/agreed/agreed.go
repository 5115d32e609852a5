// Package agreed holds the files of cases by which the interface is tested: what
// it works out for itself must be what the core computes.
package agreed

import (
	"encoding/json"
	"os"
	"testing"
)

// Holds fails when a file of cases is not what the core computes; with UPDATE=1
// in the environment it writes it anew.
func Holds(t *testing.T, name string, cases any) {
	t.Helper()
	want, err := json.Marshal(cases)
	if err != nil {
		t.Fatal(err)
	}
	if os.Getenv("UPDATE") != "" {
		if err := os.WriteFile(name, want, 0o644); err != nil {
			t.Fatal(err)
		}
	}
	if got, err := os.ReadFile(name); err != nil || string(got) != string(want) {
		t.Errorf("%s is not what the core computes: run this test with UPDATE=1 (%v)", name, err)
	}
}
