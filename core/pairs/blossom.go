package pairs

// matching pairs the vertices of a graph: mate gives for each the other one, or -1.
type matching struct {
	mate []int
	// Of one search: base is the blossom that a vertex is in, by its base; parent leads
	// back along the tree from the inner vertices.
	base, parent []int
	outer        []bool
	edges        [][]int
}

func newMatching(n int) *matching {
	m := &matching{mate: make([]int, n), base: make([]int, n), parent: make([]int, n), outer: make([]bool, n)}
	for i := range m.mate {
		m.mate[i] = -1
	}
	return m
}

// grow makes the matching as large as it can be in a graph that holds it: paths that begin
// and end at vertices without a mate are turned over until there are none.
func (m *matching) grow(edge func(i, j int) bool) {
	n := len(m.mate)
	m.edges = make([][]int, n)
	for i := range n {
		for j := range n {
			if i != j && edge(i, j) {
				m.edges[i] = append(m.edges[i], j)
			}
		}
	}
	for i := range n {
		if m.mate[i] < 0 {
			m.turn(m.search(i))
		}
	}
}

// rest does the same among those alone who have no mate yet.
func (m *matching) rest(edge func(i, j int) bool) {
	free := make([]bool, len(m.mate))
	for i, with := range m.mate {
		free[i] = with < 0
	}
	m.grow(func(i, j int) bool { return free[i] && free[j] && edge(i, j) })
}

// search looks for such a path from a vertex and gives its other end; -1 for none.
func (m *matching) search(root int) int {
	for i := range m.base {
		m.base[i], m.parent[i], m.outer[i] = i, -1, false
	}
	m.outer[root] = true
	queue := []int{root}
	for len(queue) > 0 {
		v := queue[0]
		queue = queue[1:]
		for _, to := range m.edges[v] {
			switch {
			case m.base[v] == m.base[to] || m.mate[v] == to:
			case to == root || m.mate[to] >= 0 && m.parent[m.mate[to]] >= 0:
				queue = append(queue, m.shrink(v, to)...)
			case m.parent[to] < 0:
				m.parent[to] = v
				if m.mate[to] < 0 {
					return to
				}
				m.outer[m.mate[to]] = true
				queue = append(queue, m.mate[to])
			}
		}
	}
	return -1
}

// shrink takes an odd circle as one vertex; it gives the vertices that became outer.
func (m *matching) shrink(v, w int) []int {
	base := m.meet(v, w)
	in := make([]bool, len(m.mate))
	m.mark(in, v, base, w)
	m.mark(in, w, base, v)
	var fresh []int
	for i := range m.base {
		if in[m.base[i]] {
			m.base[i] = base
			if !m.outer[i] {
				m.outer[i] = true
				fresh = append(fresh, i)
			}
		}
	}
	return fresh
}

// meet gives the base where the ways back from two vertices come together.
func (m *matching) meet(v, w int) int {
	on := make([]bool, len(m.mate))
	for {
		v = m.base[v]
		on[v] = true
		if m.mate[v] < 0 {
			break
		}
		v = m.parent[m.mate[v]]
	}
	for w = m.base[w]; !on[w]; w = m.base[m.parent[m.mate[w]]] {
	}
	return w
}

// mark notes the blossoms on the way back from v to the base, and how that way now leads.
func (m *matching) mark(in []bool, v, base, child int) {
	for m.base[v] != base {
		in[m.base[v]], in[m.base[m.mate[v]]] = true, true
		m.parent[v] = child
		child = m.mate[v]
		v = m.parent[m.mate[v]]
	}
}

// turn turns over the path that ends at a vertex.
func (m *matching) turn(end int) {
	for end >= 0 {
		before := m.parent[end]
		next := m.mate[before]
		m.mate[end], m.mate[before] = before, end
		end = next
	}
}
