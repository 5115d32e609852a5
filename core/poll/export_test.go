package poll

// IsKind says whether the body of a question has all that a kind of question has.
func IsKind(body any) bool { _, is := body.(kind); return is }
