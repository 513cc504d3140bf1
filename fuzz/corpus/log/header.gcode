; layer_height = 0.2
; filament used [g] = 30.5
; print time = 1h 20m
G28
