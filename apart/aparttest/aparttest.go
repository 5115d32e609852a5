// Package aparttest builds the house's own program for tests that start it, as it
// is delivered: with the race detector it would be many times as slow.
package aparttest

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
)

// Program is the path of the program while Run runs.
var Program string

// Run builds the program, runs a package's tests, and gives their exit code.
func Run(tests func() int) int {
	dir, err := os.MkdirTemp("", "alpenglow-test-")
	if err == nil {
		defer os.RemoveAll(dir)
		Program = filepath.Join(dir, "alpenglow")
		var said []byte
		if said, err = exec.Command("go", "build", "-o", Program,
			"alpenglow/cmd/alpenglow").CombinedOutput(); err != nil {
			fmt.Fprintln(os.Stderr, string(said))
		}
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	return tests()
}
