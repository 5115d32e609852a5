// Package oneof knows how a union is written in this house: a struct whose
// field tagged oneof names the kind, and which has for each kind a pointer
// with the kind as its JSON name. The struct is the registry of its kinds:
// reading, checking, the wire types and the tests of kinds go by it.
package oneof

import (
	"reflect"
	"strings"
	"sync"
)

// union is where the fields of a union's struct are.
type union struct {
	kind  int
	cases []int
	names []string
}

var known sync.Map // of *union, by type

func unionOf(t reflect.Type) *union {
	if u, ok := known.Load(t); ok {
		return u.(*union)
	}
	u := &union{kind: -1}
	for i := range t.NumField() {
		f := t.Field(i)
		if _, heads := f.Tag.Lookup("oneof"); heads {
			u.kind = i
		} else if u.kind >= 0 && f.Type.Kind() == reflect.Pointer {
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			u.cases, u.names = append(u.cases, i), append(u.names, name)
		}
	}
	if u.kind < 0 {
		panic(t.String() + " is no union")
	}
	known.Store(t, u)
	return u
}

// Body gives the one body that is set of the union that p points to. It is
// false when none or several are set, or another than the kind names.
func Body(p any) (body any, ok bool) {
	v := reflect.ValueOf(p).Elem()
	u := unionOf(v.Type())
	kind := v.Field(u.kind).String()
	for i, at := range u.cases {
		f := v.Field(at)
		switch {
		case f.IsNil() != (u.names[i] != kind):
			return nil, false
		case !f.IsNil():
			body = f.Interface()
		}
	}
	return body, body != nil
}

// Cases lists for each kind of the union that t is, in order, its name and an
// empty body.
func Cases(t reflect.Type) (names []string, bodies []any) {
	u := unionOf(t)
	for _, at := range u.cases {
		bodies = append(bodies, reflect.New(t.Field(at).Type.Elem()).Interface())
	}
	return u.names, bodies
}
