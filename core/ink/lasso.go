package ink

// Caught reports whether a lasso, drawn around and closed by itself, catches a
// line: at least half of its length, taken at its points, lies inside.
func Caught(line []Point, lasso []Point) bool {
	if len(line) == 1 {
		return Inside(lasso, line[0])
	}
	in, all := 0.0, 0.0
	for i := 1; i < len(line); i++ {
		length := line[i-1].to(line[i])
		all += length
		if Inside(lasso, line[i-1].at(line[i], 0.5)) {
			in += length
		}
	}
	return all > 0 && 2*in >= all
}
