package live

import (
	"bytes"
	"fmt"
	"slices"
	"sync"
	"testing"
	"time"

	"alpenglow/core/session"
)

// How long from a teacher's tap until every student's device, and the front screen,
// has been told: over real connections, hub, database and clients on one machine.
func BenchmarkTap(b *testing.B) {
	for _, n := range []int{30, 300} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			var names []string
			for i := range n {
				names = append(names, fmt.Sprint("Student ", i))
			}
			at := newBattle(b, names...)
			staff := at.connect("staff", RoleStaff)
			give := func(c session.Command) { staff.call(MethodCommand, c) }
			give(session.Command{Kind: session.KindPace, Pace: &session.SetPace{Pace: session.Led}})
			give(session.Command{Kind: session.KindFront, Front: &session.Front{Kind: session.FrontFrame}})
			var told sync.WaitGroup
			var mu sync.Mutex
			var began time.Time
			var front, students []time.Duration
			watch := func(name string, as Role, took *[]time.Duration) {
				w := at.connect(name, as)
				w.mu.Lock()
				defer w.mu.Unlock()
				paused := false
				w.each = func(text []byte) {
					says := bytes.Contains(text, []byte(`"paused":true`))
					if says == paused || !bytes.Contains(text, []byte(`"push"`)) ||
						!bytes.Contains(text, []byte(`"rev"`)) {
						return
					}
					paused = says
					mu.Lock()
					*took = append(*took, time.Since(began))
					mu.Unlock()
					told.Done()
				}
			}
			for _, name := range names {
				watch(name, RoleStudent, &students)
			}
			watch("screen", RoleFront, &front)
			i := 0
			for b.Loop() {
				told.Add(n + 1)
				mu.Lock()
				began = time.Now()
				mu.Unlock()
				i++
				give(session.Command{Kind: session.KindPause, Pause: &session.Pause{On: i%2 == 1}})
				told.Wait()
			}
			for name, took := range map[string][]time.Duration{"front": front, "students": students} {
				slices.Sort(took)
				ms := func(share float64) float64 {
					return float64(took[int(share*float64(len(took)-1))].Microseconds()) / 1000
				}
				b.ReportMetric(ms(0.5), name+"-p50-ms")
				b.ReportMetric(ms(0.99), name+"-p99-ms")
			}
		})
	}
}
