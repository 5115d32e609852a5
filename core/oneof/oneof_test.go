package oneof_test

import (
	"reflect"
	"testing"

	"alpenglow/core/oneof"
)

type rain struct{ Drops int }
type snow struct{ Flakes int }

type weather struct {
	Where string
	Kind  string `json:"kind" oneof:""`
	Rain  *rain  `json:"rain,omitempty"`
	Snow  *snow  `json:"snow,omitempty"`
}

func TestBody(t *testing.T) {
	for _, c := range []struct {
		w    weather
		want any
	}{
		{weather{Kind: "rain", Rain: &rain{3}}, &rain{3}},
		{weather{Kind: "snow", Snow: &snow{}}, &snow{}},
		{weather{Kind: "snow", Rain: &rain{}}, nil},
		{weather{Kind: "rain", Rain: &rain{}, Snow: &snow{}}, nil},
		{weather{Kind: "rain"}, nil},
		{weather{Kind: "hail"}, nil},
		{weather{}, nil},
	} {
		body, ok := oneof.Body(&c.w)
		if ok != (c.want != nil) || ok && !reflect.DeepEqual(body, c.want) {
			t.Errorf("%+v: %v, %v", c.w, body, ok)
		}
	}
	names, bodies := oneof.Cases(reflect.TypeFor[weather]())
	if !reflect.DeepEqual(names, []string{"rain", "snow"}) || !reflect.DeepEqual(bodies, []any{&rain{}, &snow{}}) {
		t.Errorf("%v %v", names, bodies)
	}
}
