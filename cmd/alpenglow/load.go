package main

import "context"

func load(ctx context.Context, args []string) error  { return nil }
func relay(ctx context.Context, args []string) error { return nil }
