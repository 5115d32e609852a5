package insight

import (
	"encoding/json"
	"os"
	"testing"
	"time"
)

func TestDoing(t *testing.T) {
	data, err := os.ReadFile("testdata/doing.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []struct {
		Here, Removed bool
		Marks         int
		Ago           int64 // milliseconds
		Doing         Doing
	}
	if err := json.Unmarshal(data, &cases); err != nil || len(cases) == 0 {
		t.Fatal(len(cases), err)
	}
	now := time.Unix(1_790_000_000, 0)
	for _, c := range cases {
		seen := Seen{Here: c.Here, Removed: c.Removed, Marks: c.Marks,
			At: now.Add(-time.Duration(c.Ago) * time.Millisecond)}
		if got := seen.Doing(now); got != c.Doing {
			t.Errorf("%+v: %s", c, got)
		}
	}
}
