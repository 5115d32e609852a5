package sheet

import (
	"reflect"

	"alpenglow/core/oneof"
)

// kinds has the operations that there are.
var kinds = func() map[Kind]bool {
	names, _ := oneof.Cases(reflect.TypeFor[Step]())
	known := map[Kind]bool{}
	for _, name := range names {
		known[Kind(name)] = true
	}
	return known
}()
