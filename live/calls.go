package live

import "sync"

// calls are those of one connection. While there are none, nothing runs for it.
type calls struct {
	hub     *Hub
	mu      sync.Mutex
	waiting []func()
	at      bool // one is being carried out
}

// add puts a call in line and reports whether there was room.
func (c *calls) add(call func()) bool {
	c.mu.Lock()
	defer c.mu.Unlock()
	if len(c.waiting) >= maxCalls {
		return false
	}
	c.waiting = append(c.waiting, call)
	if !c.at {
		c.at = true
		go c.run()
	}
	return true
}

func (c *calls) run() {
	for {
		c.mu.Lock()
		if len(c.waiting) == 0 {
			c.waiting, c.at = nil, false
			c.mu.Unlock()
			return
		}
		next := c.waiting[0]
		c.waiting = c.waiting[1:]
		c.mu.Unlock()
		c.hub.guard("call", next)
	}
}
