package main

import (
	"net"
	"sync"
)

// How many connections are open at the same time, from one address and in all. A
// school comes from one address; so does a proxy, which keeps order itself.
const (
	fromOneAddress = 3000
	fromAll        = 12_000
)

// counted is a listener that takes so many connections and closes what comes beyond.
type counted struct {
	net.Listener
	one, all int

	mu   sync.Mutex
	from map[string]int
	open int
}

func countConnections(l net.Listener, one, all int) net.Listener {
	return &counted{Listener: l, one: one, all: all, from: map[string]int{}}
}

func (l *counted) Accept() (net.Conn, error) {
	for {
		c, err := l.Listener.Accept()
		if err != nil {
			return nil, err
		}
		address, _, _ := net.SplitHostPort(c.RemoteAddr().String())
		l.mu.Lock()
		// This machine's own address is a proxy's, or the simulated class's.
		ip := net.ParseIP(address)
		full := l.open >= l.all || l.from[address] >= l.one && (ip == nil || !ip.IsLoopback())
		if !full {
			l.open++
			l.from[address]++
		}
		l.mu.Unlock()
		if !full {
			return &leaving{Conn: c, left: func() { l.leave(address) }}, nil
		}
		c.Close()
	}
}

func (l *counted) leave(address string) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.open--
	if l.from[address]--; l.from[address] == 0 {
		delete(l.from, address)
	}
}

// leaving is a connection that says once when it is closed.
type leaving struct {
	net.Conn
	once sync.Once
	left func()
}

func (c *leaving) Close() error {
	c.once.Do(c.left)
	return c.Conn.Close()
}
