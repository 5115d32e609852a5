package apart_test

import (
	"bytes"
	"context"
	"image"
	"image/jpeg"
	"image/png"
	"os"
	"strings"
	"syscall"
	"testing"
	"time"

	"alpenglow/apart"
	"alpenglow/apart/aparttest"
	"alpenglow/core/refusal"
)

func TestMain(m *testing.M) { os.Exit(aparttest.Run(m.Run)) }

func reader() apart.Reader { return apart.Reader{Command: []string{aparttest.Program, "picture"}} }

func TestRead(t *testing.T) {
	t.Parallel()
	var out bytes.Buffer
	if err := png.Encode(&out, image.NewGray(image.Rect(0, 0, 2000, 1000))); err != nil {
		t.Fatal(err)
	}
	p, err := reader().Read(t.Context(), &out)
	if err != nil || p.Width != 1600 || p.Height != 800 || p.Type != "image/jpeg" || len(p.Data) == 0 {
		t.Errorf("%d x %d %s, %v", p.Width, p.Height, p.Type, err)
	}
	if _, err := reader().Read(t.Context(), strings.NewReader("no picture")); refusal.Of(err) == nil ||
		refusal.Of(err).Code != refusal.PictureBad {
		t.Errorf("no picture: %v", err)
	}
}

// Pictures that are small and take for ever, or all memory: each is refused before it has cost much, and nothing is
// left of it. It is counted what the reading process takes of the processor, however busy the machine is; so no other
// test that starts one runs beside it.
func TestHostilePictures(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	var photo bytes.Buffer
	if err := jpeg.Encode(&photo, image.NewRGBA(image.Rect(0, 0, 64, 64)), nil); err != nil {
		t.Fatal(err)
	}
	data := photo.Bytes()
	scan := bytes.Index(data, []byte{0xff, 0xda})
	scans := append([]byte{}, data[:len(data)-2]...)
	for range 1500 {
		scans = append(scans, data[scan:len(data)-2]...)
	}
	for name, c := range map[string]struct {
		data   string
		within time.Duration
	}{
		"dashes without number": {`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">` +
			`<path d="M0 0L1e9 1e9" stroke="#000" stroke-dasharray=".016" stroke-dashoffset="1e12"/></svg>`,
			4 * time.Second},
		"a JPEG of 1,500 scans": {string(scans), 2 * time.Second},
		"paths without end": {`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><g>` +
			strings.Repeat(`<path fill="#000" stroke="#000" stroke-width="1e6" d="M0 0`+
				strings.Repeat("A9e8 1 0 1 1 9e8 9", 60)+`"/>`, 400) + `</g></svg>`, apart.Within + 3*time.Second},
	} {
		before := processor(t)
		_, err := reader().Read(t.Context(), strings.NewReader(c.data))
		took := processor(t) - before
		t.Logf("%s: %v, %v", name, took.Round(time.Millisecond), err)
		if took > c.within {
			t.Errorf("%s took %v", name, took)
		}
		if err != nil && refusal.Of(err) == nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// processor is how long the processes that were started and have ended kept a processor busy.
func processor(t *testing.T) time.Duration {
	var used syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_CHILDREN, &used); err != nil {
		t.Fatal(err)
	}
	return time.Duration(used.Utime.Nano() + used.Stime.Nano())
}

// Who goes away stops what was begun for them.
func TestStopped(t *testing.T) {
	t.Parallel()
	ctx, stop := context.WithCancel(t.Context())
	in, out, err := os.Pipe()
	if err != nil {
		t.Fatal(err)
	}
	defer out.Close()
	defer in.Close()
	time.AfterFunc(100*time.Millisecond, stop)
	began := time.Now()
	if _, err := reader().Read(ctx, in); err != context.Canceled || time.Since(began) > 3*time.Second {
		t.Errorf("%v after %v", err, time.Since(began))
	}
}
