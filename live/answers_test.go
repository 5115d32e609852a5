package live

import (
	"bytes"
	"fmt"
	"slices"
	"sync"
	"testing"
	"time"

	"alpenglow/core/poll"
	"alpenglow/core/session"
	"alpenglow/core/sheet"
)

// 300 students answer one question within a second: how long until each answer is
// acknowledged, and from then until the staff is told what the answers say with it in. Over
// real connections, hub, database and clients on one machine.
func BenchmarkAnswers(b *testing.B) {
	const n = 300
	var names []string
	for i := range n {
		names = append(names, fmt.Sprint("Student ", i))
	}
	at := newBattle(b, names...)
	second := at.board.Frames[1]
	question := second.Prepared[0]
	staff := at.connect("staff", RoleStaff)
	staff.call(MethodHello, struct{}{})
	staff.call(MethodCommand, session.Command{Kind: session.KindGo, Go: &session.Go{Frame: second.ID}})
	var mu sync.Mutex
	var told []time.Time
	students, sheets := make([]*wire, n), make([]string, n)
	for i, name := range names {
		students[i] = at.connect(name, RoleStudent)
		students[i].call(MethodHello, struct{}{})
		sheets[i] = students[i].open(second.ID)[0].Sheet
	}
	staff.mu.Lock()
	staff.each = func(text []byte) {
		if bytes.Contains(text, []byte(`"outcome":{`)) {
			mu.Lock()
			told = append(told, time.Now())
			mu.Unlock()
		}
	}
	staff.mu.Unlock()
	var acks, until []time.Duration
	round := 0
	for b.Loop() {
		round++
		var done sync.WaitGroup
		acked := make([]time.Time, n)
		took := make([]time.Duration, n)
		for i := range n {
			done.Go(func() {
				time.Sleep(time.Duration(i) * time.Second / n)
				value := poll.Choose(question.Poll.Choice.Options[(i+round)%2].ID)
				began := time.Now()
				students[i].ops(step(sheets[i], sheet.Step{Kind: sheet.KindAnswer,
					Answer: &sheet.SetAnswer{Poll: question.ID, Round: 1, Value: &value}}))
				acked[i] = time.Now()
				took[i] = acked[i].Sub(began)
			})
		}
		done.Wait()
		time.Sleep(time.Second)
		mu.Lock()
		for i := range n {
			at := slices.IndexFunc(told, func(t time.Time) bool { return t.After(acked[i]) })
			if at < 0 {
				b.Fatal("the staff was not told")
			}
			until = append(until, told[at].Sub(acked[i]))
		}
		mu.Unlock()
		acks = append(acks, took...)
	}
	for name, all := range map[string][]time.Duration{"acknowledged": acks, "told": until} {
		slices.Sort(all)
		for _, share := range []float64{.5, .95, .99} {
			b.ReportMetric(
				float64(all[int(share*float64(len(all)-1))].Microseconds())/1000,
				fmt.Sprintf("%s-p%.0f-ms", name, share*100),
			)
		}
	}
}
