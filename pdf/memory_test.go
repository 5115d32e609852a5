package pdf_test

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"alpenglow/apart/aparttest"
)

// peak watches the reading processes that this one starts, and gives how much
// memory one of them has had at most so far, in MiB (VmHWM of proc(5)).
func peak(t testing.TB) func() int64 {
	t.Helper()
	var most atomic.Int64
	done := make(chan struct{})
	t.Cleanup(func() { close(done) })
	go func() {
		for {
			select {
			case <-done:
				return
			case <-time.After(10 * time.Millisecond):
				most.Store(max(most.Load(), resident()))
			}
		}
	}()
	return func() int64 { return most.Load() >> 10 }
}

// resident gives the highest mark of the reading processes there are, in KiB.
func resident() int64 {
	var most int64
	all, _ := filepath.Glob("/proc/[0-9]*/cmdline")
	for _, path := range all {
		if line, err := os.ReadFile(path); err != nil ||
			!bytes.Contains(line, []byte(aparttest.Program+"\x00pdf-pages")) {
			continue
		}
		status, _ := os.ReadFile(filepath.Join(filepath.Dir(path), "status"))
		if _, after, ok := strings.Cut(string(status), "VmHWM:"); ok {
			var kib int64
			fmt.Sscan(after, &kib)
			most = max(most, kib)
		}
	}
	return most
}
