// Package apart reads foreign pictures in a process of its own, with limits of
// memory and time: a picture that makes a decoder run for ever, or grow, costs
// itself alone.
package apart

import (
	"bytes"
	"context"
	"encoding/gob"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"runtime/debug"
	"syscall"
	"time"

	"alpenglow/core/picture"
	"alpenglow/core/refusal"
)

// What the reading process may use.
const (
	Within  = 8 * time.Second // by the clock
	seconds = 8               // of processor time
	memory  = 600 << 20       // bytes, beyond which it collects garbage hard
	address = 4 << 30         // bytes of address space
)

// Reader reads pictures with a program, this one, that runs Child.
type Reader struct{ Command []string }

// result is what the reading process answers.
type result struct {
	Picture picture.Picture
	Refused refusal.Code
}

// Read reads a picture; what cannot be read is a refusal, also when it takes too
// long or too much. ctx stops it.
func (r Reader) Read(ctx context.Context, data io.Reader) (picture.Picture, error) {
	within, cancel := context.WithTimeout(ctx, Within)
	defer cancel()
	command := exec.CommandContext(within, r.Command[0], r.Command[1:]...)
	command.Env = []string{"HOME=/nonexistent", "TMPDIR=" + os.TempDir()}
	command.Stdin = data
	command.WaitDelay = time.Second
	var out bytes.Buffer
	command.Stdout = &out
	err := command.Run()
	if ctx.Err() != nil {
		return picture.Picture{}, ctx.Err()
	}
	if exit := new(exec.ExitError); err != nil && !errors.As(err, &exit) && within.Err() == nil {
		return picture.Picture{}, fmt.Errorf("start the picture reader: %w", err)
	}
	var answer result
	if err != nil || gob.NewDecoder(&out).Decode(&answer) != nil {
		return picture.Picture{}, refusal.New(refusal.PictureBad)
	}
	if answer.Refused != "" {
		return picture.Picture{}, refusal.New(answer.Refused)
	}
	return answer.Picture, nil
}

// Child reads the picture on in and writes what it is to out. It is the whole
// work of the reading process, which gives way to everything else.
func Child(in io.Reader, out io.Writer) error {
	limit := func(what int, most uint64) error {
		return syscall.Setrlimit(what, &syscall.Rlimit{Cur: most, Max: most})
	}
	if err := errors.Join(limit(syscall.RLIMIT_AS, address), limit(syscall.RLIMIT_CPU, seconds),
		limit(syscall.RLIMIT_CORE, 0),
		syscall.Setpriority(syscall.PRIO_PROCESS, 0, 15)); err != nil {
		return fmt.Errorf("set limits: %w", err)
	}
	debug.SetMemoryLimit(memory)
	data, err := io.ReadAll(io.LimitReader(in, picture.MaxBytes+1))
	if err != nil {
		return err
	}
	var answer result
	answer.Picture, err = picture.Read(data)
	if r := refusal.Of(err); r != nil {
		answer.Refused = r.Code
	} else if err != nil {
		return err
	}
	return gob.NewEncoder(out).Encode(answer)
}
