package main

import (
	"fmt"
	"io"
	"net"
	"sync"
)

// cutWire passes bytes on between clients and the server, until it is cut.
type cutWire struct {
	listener net.Listener
	to       string
	mu       sync.Mutex
	open     map[net.Conn]bool
}

func newCutWire(port int) (*cutWire, error) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, err
	}
	w := &cutWire{listener: listener, to: fmt.Sprintf("127.0.0.1:%d", port), open: map[net.Conn]bool{}}
	go w.serve()
	return w, nil
}

func (w *cutWire) url() string { return "http://" + w.listener.Addr().String() }

func (w *cutWire) serve() {
	for {
		in, err := w.listener.Accept()
		if err != nil {
			return
		}
		go w.pass(in)
	}
}

func (w *cutWire) pass(in net.Conn) {
	out, err := net.Dial("tcp", w.to)
	if err != nil {
		in.Close()
		return
	}
	w.note(in, out, true)
	defer w.note(in, out, false)
	done := make(chan struct{}, 2)
	for _, way := range [][2]net.Conn{{in, out}, {out, in}} {
		go func() {
			// Small pieces, so that a cut falls into the middle of messages.
			io.CopyBuffer(struct{ io.Writer }{way[1]}, struct{ io.Reader }{way[0]}, make([]byte, 512))
			done <- struct{}{}
		}()
	}
	<-done
	in.Close()
	out.Close()
	<-done
}

func (w *cutWire) note(a, b net.Conn, open bool) {
	w.mu.Lock()
	defer w.mu.Unlock()
	for _, c := range []net.Conn{a, b} {
		if open {
			w.open[c] = true
		} else {
			delete(w.open, c)
		}
	}
}

// cut ends every connection where it is.
func (w *cutWire) cut() {
	w.mu.Lock()
	defer w.mu.Unlock()
	for c := range w.open {
		if tcp, ok := c.(*net.TCPConn); ok {
			tcp.SetLinger(0)
		}
		c.Close()
	}
}
