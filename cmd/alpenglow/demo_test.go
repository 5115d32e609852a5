package main

import (
	"testing"
	"time"

	"github.com/google/uuid"
)

// The load generator reads the time back from the ids it makes, which are
// version 7 UUIDs (RFC 9562).
func TestTimedID(t *testing.T) {
	t.Parallel()
	before := time.Now()
	id := uuid.MustParse(timedID())
	after := time.Now()
	if id.Version() != 7 || id.Variant() != uuid.RFC4122 {
		t.Errorf("%v is version %d", id, id.Version())
	}
	if at := timeOf(id); at.Before(before.Add(-time.Microsecond)) || at.After(after) {
		t.Errorf("%v is not between %v and %v", at, before, after)
	}
}

func TestPercentiles(t *testing.T) {
	t.Parallel()
	var times []time.Duration
	for i := range 100 {
		times = append(times, time.Duration(i+1)*time.Millisecond)
	}
	if got := percentiles(times); got != "51.0 / 96.0 / 100.0" {
		t.Errorf("got %s", got)
	}
}
