package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"math"
	"math/rand/v2"
	"sync"
	"time"

	"alpenglow/core/lesson"
	"alpenglow/core/sheet"
	"alpenglow/live"

	"github.com/gorilla/websocket"
	"golang.org/x/sync/errgroup"
)

// crowd lets students join one lesson, fill its frame, and then draw all at
// once, so that a screen of that lesson can be measured.
func crowd(ctx context.Context, args []string) error {
	var o loadOptions
	flags := flag.NewFlagSet("crowd", flag.ContinueOnError)
	flags.StringVar(&o.url, "url", "http://127.0.0.1:8080", "address of the server")
	code := flags.String("code", "", "join code of the lesson")
	flags.IntVar(&o.students, "students", 30, "students")
	notes := flags.Int("notes", 300, "notes on the frame, in all")
	strokes := flags.Int("strokes", 600, "lines of 80 points on the frame, in all")
	flags.IntVar(&o.seconds, "seconds", 10, "how long they draw")
	if err := flags.Parse(args); err != nil {
		return err
	}
	k := &class{told: map[int64]*told{}, clients: make([]*client, o.students)}
	work, joining := errgroup.WithContext(ctx)
	work.SetLimit(8)
	for i := range k.clients {
		work.Go(func() error {
			cookie, session, err := o.joinWith(joining, *code, fmt.Sprintf("Crowd %d", i+1))
			if err != nil {
				return err
			}
			k.mu.Lock()
			k.session = session
			k.mu.Unlock()
			k.clients[i], err = o.connect(joining, k, cookie)
			return err
		})
	}
	if err := work.Wait(); err != nil {
		return err
	}
	defer hangUp(k.clients)
	for i := range max(*notes, *strokes) {
		c := k.clients[i%len(k.clients)]
		if i < *notes {
			if err := c.add(note(i)); err != nil {
				return err
			}
		}
		if i < *strokes {
			if err := c.add(line()); err != nil {
				return err
			}
		}
		if i%40 == 0 {
			time.Sleep(100 * time.Millisecond)
		}
	}
	fmt.Println("filled")
	var drawing sync.WaitGroup
	end := time.Now().Add(time.Duration(o.seconds) * time.Second)
	for _, c := range k.clients {
		drawing.Go(func() { c.draw(ctx, end) })
	}
	drawing.Wait()
	fmt.Println("drawn")
	return nil
}

func note(i int) sheet.Add {
	return sheet.Add{Mark: timedID(), X: float64(i * 53 % 1380), Y: float64(140 + i*37%760), W: 200, H: 60,
		Body: lesson.Body{Kind: lesson.KindNote,
			Note: &lesson.Note{Text: fmt.Sprintf("tide %d", i), Tint: lesson.Tints[i%6], Size: 22}}}
}

// line is a curve of 80 points.
func line() sheet.Add {
	points := make([]float64, 0, 240)
	phase := 6 * rand.Float64()
	for i := range 80 {
		points = append(points, math.Round(float64(i)*25)/10, math.Round(300+300*math.Sin(float64(i)/9+phase))/10, 0.5)
	}
	return sheet.Add{Mark: timedID(), X: 1380 * rand.Float64(), Y: 140 + 780*rand.Float64(),
		Body: lesson.Body{Kind: lesson.KindStroke,
			Stroke: &lesson.Stroke{Points: points, Ink: lesson.Inks[rand.IntN(5)], Width: 5}}}
}

func (c *client) add(a sheet.Add) error {
	op := sheet.Op{ID: timedID(), Sheet: c.class.sheet, Step: sheet.Step{Kind: sheet.KindAdd, Add: &a}}
	text, err := json.Marshal(op)
	if err != nil {
		return err
	}
	c.mu.Lock()
	id := c.next
	c.next++
	c.pending[id] = time.Now()
	c.mu.Unlock()
	return c.say(fmt.Appendf(nil, `{"id":%d,"rpc":{"method":"ops","data":{"ops":[%s]}}}`, id, text))
}

// draw lets a line grow under the eyes of the class until the end, a few
// points at a time, as a hand does.
func (c *client) draw(ctx context.Context, end time.Time) {
	const every = 45 * time.Millisecond
	tick := time.NewTicker(every)
	defer tick.Stop()
	x, y, id := 1400*rand.Float64()+100, 700*rand.Float64()+150, timedID()
	for n := 0; time.Now().Before(end); n++ {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		if n%80 == 79 { // a new line
			x, y, id = 1400*rand.Float64()+100, 700*rand.Float64()+150, timedID()
		}
		var points []float64
		for range 3 {
			x, y = min(1590, max(10, x+12*rand.NormFloat64())), min(990, max(10, y+12*rand.NormFloat64()))
			points = append(points, math.Round(x*10)/10, math.Round(y*10)/10, 0.5)
		}
		pass := live.Pass{Sheet: c.class.sheet, Kind: live.PassDraw,
			Draw: &live.Draw{Stroke: id, Points: points, Ink: "lake", Width: 8}}
		text, err := json.Marshal(pass)
		if err == nil {
			err = c.say(fmt.Appendf(nil, `{"send":{"data":%s}}`, text))
		}
		if err != nil {
			return
		}
	}
}

func (c *client) say(message []byte) error {
	c.write.Lock()
	defer c.write.Unlock()
	return c.conn.WriteMessage(websocket.TextMessage, message)
}
