package live

import (
	"fmt"
	"runtime"
	"runtime/debug"
)

// guard runs a part of the work of which a bug must not end the server, and
// reports whether it panicked. What is logged has the stack and what kind of
// panic it was, never a value: it may hold what somebody wrote.
func (h *Hub) guard(what string, work func()) (panicked bool) {
	defer func() {
		if cause := recover(); cause != nil {
			panicked = true
			h.metrics.panics.WithLabelValues(what).Inc()
			h.log.Error("panic", "in", what, "cause", Cause(cause), "stack", string(debug.Stack()))
		}
	}()
	work()
	return false
}

// Cause says what kind of panic it was, without what people wrote.
func Cause(recovered any) string {
	if err, ok := recovered.(runtime.Error); ok {
		return err.Error()
	}
	return fmt.Sprintf("%T", recovered)
}
