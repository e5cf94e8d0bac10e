;; Pointers are byte offsets into the memory; numbers are single-precision, in sixteen-byte steps.
;; multiply: C = A · B + bias, optionally with negative results set to zero.
;; A is m × k row-major with m a multiple of 4. B is packed in panels of 8 columns (each panel k × 8).
;; C is m × n row-major with n a multiple of 8.
(module
  (import "env" "memory" (memory 1))
  (func (export "multiply")
    (param $a i32) (param $b i32) (param $bias i32) (param $c i32)
    (param $m i32) (param $k i32) (param $n i32) (param $rectify i32)
    (local $i i32) (local $j i32) (local $left i32) (local $row i32) (local $out i32)
    (local $p i32) (local $q0 i32) (local $q1 i32) (local $q2 i32) (local $q3 i32)
    (local $b0 v128) (local $b1 v128) (local $s v128) (local $zero v128)
    (local $c00 v128) (local $c01 v128) (local $c10 v128) (local $c11 v128)
    (local $c20 v128) (local $c21 v128) (local $c30 v128) (local $c31 v128)
    (local.set $row (i32.shl (local.get $k) (i32.const 2)))
    (local.set $out (i32.shl (local.get $n) (i32.const 2)))
    (loop $columns
      (local.set $i (i32.const 0))
      (loop $rows
        (local.set $b0 (v128.load (i32.add (local.get $bias) (i32.shl (local.get $j) (i32.const 2)))))
        (local.set $b1 (v128.load offset=16 (i32.add (local.get $bias) (i32.shl (local.get $j) (i32.const 2)))))
        (local.set $c00 (local.get $b0)) (local.set $c01 (local.get $b1))
        (local.set $c10 (local.get $b0)) (local.set $c11 (local.get $b1))
        (local.set $c20 (local.get $b0)) (local.set $c21 (local.get $b1))
        (local.set $c30 (local.get $b0)) (local.set $c31 (local.get $b1))
        (local.set $p (i32.add (local.get $b) (i32.mul (local.get $j) (local.get $row))))
        (local.set $q0 (i32.add (local.get $a) (i32.mul (local.get $i) (local.get $row))))
        (local.set $q1 (i32.add (local.get $q0) (local.get $row)))
        (local.set $q2 (i32.add (local.get $q1) (local.get $row)))
        (local.set $q3 (i32.add (local.get $q2) (local.get $row)))
        (local.set $left (local.get $k))
        (loop $inner
          (local.set $b0 (v128.load (local.get $p)))
          (local.set $b1 (v128.load offset=16 (local.get $p)))
          (local.set $s (v128.load32_splat (local.get $q0)))
          (local.set $c00 (f32x4.add (local.get $c00) (f32x4.mul (local.get $s) (local.get $b0))))
          (local.set $c01 (f32x4.add (local.get $c01) (f32x4.mul (local.get $s) (local.get $b1))))
          (local.set $s (v128.load32_splat (local.get $q1)))
          (local.set $c10 (f32x4.add (local.get $c10) (f32x4.mul (local.get $s) (local.get $b0))))
          (local.set $c11 (f32x4.add (local.get $c11) (f32x4.mul (local.get $s) (local.get $b1))))
          (local.set $s (v128.load32_splat (local.get $q2)))
          (local.set $c20 (f32x4.add (local.get $c20) (f32x4.mul (local.get $s) (local.get $b0))))
          (local.set $c21 (f32x4.add (local.get $c21) (f32x4.mul (local.get $s) (local.get $b1))))
          (local.set $s (v128.load32_splat (local.get $q3)))
          (local.set $c30 (f32x4.add (local.get $c30) (f32x4.mul (local.get $s) (local.get $b0))))
          (local.set $c31 (f32x4.add (local.get $c31) (f32x4.mul (local.get $s) (local.get $b1))))
          (local.set $p (i32.add (local.get $p) (i32.const 32)))
          (local.set $q0 (i32.add (local.get $q0) (i32.const 4)))
          (local.set $q1 (i32.add (local.get $q1) (i32.const 4)))
          (local.set $q2 (i32.add (local.get $q2) (i32.const 4)))
          (local.set $q3 (i32.add (local.get $q3) (i32.const 4)))
          (br_if $inner (local.tee $left (i32.sub (local.get $left) (i32.const 1))))
        )
        (if (local.get $rectify)
          (then
            (local.set $c00 (f32x4.max (local.get $c00) (local.get $zero))) (local.set $c01 (f32x4.max (local.get $c01) (local.get $zero)))
            (local.set $c10 (f32x4.max (local.get $c10) (local.get $zero))) (local.set $c11 (f32x4.max (local.get $c11) (local.get $zero)))
            (local.set $c20 (f32x4.max (local.get $c20) (local.get $zero))) (local.set $c21 (f32x4.max (local.get $c21) (local.get $zero)))
            (local.set $c30 (f32x4.max (local.get $c30) (local.get $zero))) (local.set $c31 (f32x4.max (local.get $c31) (local.get $zero)))
          ))
        (local.set $p
          (i32.add (i32.add (local.get $c) (i32.mul (local.get $i) (local.get $out))) (i32.shl (local.get $j) (i32.const 2))))
        (v128.store (local.get $p) (local.get $c00)) (v128.store offset=16 (local.get $p) (local.get $c01))
        (local.set $p (i32.add (local.get $p) (local.get $out)))
        (v128.store (local.get $p) (local.get $c10)) (v128.store offset=16 (local.get $p) (local.get $c11))
        (local.set $p (i32.add (local.get $p) (local.get $out)))
        (v128.store (local.get $p) (local.get $c20)) (v128.store offset=16 (local.get $p) (local.get $c21))
        (local.set $p (i32.add (local.get $p) (local.get $out)))
        (v128.store (local.get $p) (local.get $c30)) (v128.store offset=16 (local.get $p) (local.get $c31))
        (br_if $rows (i32.lt_s (local.tee $i (i32.add (local.get $i) (i32.const 4))) (local.get $m)))
      )
      (br_if $columns (i32.lt_s (local.tee $j (i32.add (local.get $j) (i32.const 8))) (local.get $n)))
    )
  )

  ;; The sum of the products of two stretches of numbers; count is a multiple of 4.
  (func (export "dot") (param $a i32) (param $b i32) (param $count i32) (result f64)
    (local $p v128) (local $low v128) (local $high v128)
    (loop $next
      (local.set $p (f32x4.mul (v128.load (local.get $a)) (v128.load (local.get $b))))
      (local.set $low (f64x2.add (local.get $low) (f64x2.promote_low_f32x4 (local.get $p))))
      (local.set $high
        (f64x2.add (local.get $high)
          (f64x2.promote_low_f32x4
            (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $p) (local.get $p)))))
      (local.set $a (i32.add (local.get $a) (i32.const 16)))
      (local.set $b (i32.add (local.get $b) (i32.const 16)))
      (br_if $next (local.tee $count (i32.sub (local.get $count) (i32.const 4))))
    )
    (local.set $low (f64x2.add (local.get $low) (local.get $high)))
    (f64.add (f64x2.extract_lane 0 (local.get $low)) (f64x2.extract_lane 1 (local.get $low)))
  )

  ;; into[row] = the product of each row with a vector. n rows, a multiple of 4, of width numbers, a multiple of 4.
  (func (export "products")
    (param $rows i32) (param $vector i32) (param $into i32) (param $n i32) (param $width i32)
    (local $stride i32) (local $left i32) (local $q0 i32) (local $q1 i32) (local $q2 i32) (local $q3 i32) (local $p i32)
    (local $v v128) (local $s0 v128) (local $s1 v128) (local $s2 v128) (local $s3 v128) (local $t v128)
    (local.set $stride (i32.shl (local.get $width) (i32.const 2)))
    (loop $next
      (local.set $s0 (v128.const i32x4 0 0 0 0)) (local.set $s1 (v128.const i32x4 0 0 0 0))
      (local.set $s2 (v128.const i32x4 0 0 0 0)) (local.set $s3 (v128.const i32x4 0 0 0 0))
      (local.set $q0 (local.get $rows))
      (local.set $q1 (i32.add (local.get $q0) (local.get $stride)))
      (local.set $q2 (i32.add (local.get $q1) (local.get $stride)))
      (local.set $q3 (i32.add (local.get $q2) (local.get $stride)))
      (local.set $p (local.get $vector))
      (local.set $left (local.get $width))
      (loop $inner
        (local.set $v (v128.load (local.get $p)))
        (local.set $s0 (f32x4.add (local.get $s0) (f32x4.mul (local.get $v) (v128.load (local.get $q0)))))
        (local.set $s1 (f32x4.add (local.get $s1) (f32x4.mul (local.get $v) (v128.load (local.get $q1)))))
        (local.set $s2 (f32x4.add (local.get $s2) (f32x4.mul (local.get $v) (v128.load (local.get $q2)))))
        (local.set $s3 (f32x4.add (local.get $s3) (f32x4.mul (local.get $v) (v128.load (local.get $q3)))))
        (local.set $p (i32.add (local.get $p) (i32.const 16)))
        (local.set $q0 (i32.add (local.get $q0) (i32.const 16)))
        (local.set $q1 (i32.add (local.get $q1) (i32.const 16)))
        (local.set $q2 (i32.add (local.get $q2) (i32.const 16)))
        (local.set $q3 (i32.add (local.get $q3) (i32.const 16)))
        (br_if $inner (local.tee $left (i32.sub (local.get $left) (i32.const 4))))
      )
      ;; Pairs of sums side by side, then the four sums in order.
      (local.set $t
        (f32x4.add
          (i8x16.shuffle 0 1 2 3 16 17 18 19 4 5 6 7 20 21 22 23 (local.get $s0) (local.get $s1))
          (i8x16.shuffle 8 9 10 11 24 25 26 27 12 13 14 15 28 29 30 31 (local.get $s0) (local.get $s1))))
      (local.set $v
        (f32x4.add
          (i8x16.shuffle 0 1 2 3 16 17 18 19 4 5 6 7 20 21 22 23 (local.get $s2) (local.get $s3))
          (i8x16.shuffle 8 9 10 11 24 25 26 27 12 13 14 15 28 29 30 31 (local.get $s2) (local.get $s3))))
      (v128.store (local.get $into)
        (f32x4.add
          (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $t) (local.get $v))
          (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $t) (local.get $v))))
      (local.set $into (i32.add (local.get $into) (i32.const 16)))
      (local.set $rows (local.get $q3))
      (br_if $next (local.tee $n (i32.sub (local.get $n) (i32.const 4))))
    )
  )

  ;; into[places[at]] += scale · weights[at], for count places, which may be none. places are whole numbers.
  (func (export "spread") (param $into i32) (param $places i32) (param $weights i32) (param $scale f32) (param $count i32)
    (local $p i32)
    (if (i32.eqz (local.get $count)) (then (return)))
    (loop $next
      (local.set $p (i32.add (local.get $into) (i32.shl (i32.load (local.get $places)) (i32.const 2))))
      (f32.store (local.get $p)
        (f32.add (f32.load (local.get $p)) (f32.mul (local.get $scale) (f32.load (local.get $weights)))))
      (local.set $places (i32.add (local.get $places) (i32.const 4)))
      (local.set $weights (i32.add (local.get $weights) (i32.const 4)))
      (br_if $next (local.tee $count (i32.sub (local.get $count) (i32.const 1))))
    )
  )

  ;; into = a + scale · b; count is a multiple of 4. into may be a or b.
  (func (export "combine") (param $into i32) (param $a i32) (param $scale f32) (param $b i32) (param $count i32)
    (local $s v128)
    (local.set $s (f32x4.splat (local.get $scale)))
    (loop $next
      (v128.store (local.get $into)
        (f32x4.add (v128.load (local.get $a)) (f32x4.mul (local.get $s) (v128.load (local.get $b)))))
      (local.set $into (i32.add (local.get $into) (i32.const 16)))
      (local.set $a (i32.add (local.get $a) (i32.const 16)))
      (local.set $b (i32.add (local.get $b) (i32.const 16)))
      (br_if $next (local.tee $count (i32.sub (local.get $count) (i32.const 4))))
    )
  )

  ;; e to the power of four numbers that are not above zero; below -87 it is zero (Cephes expf, Moshier, 1989).
  (func $exp (param $x v128) (result v128)
    (local $n v128) (local $r v128) (local $y v128)
    (local.set $r (f32x4.max (local.get $x) (f32x4.splat (f32.const -87))))
    (local.set $n (f32x4.nearest (f32x4.mul (local.get $r) (f32x4.splat (f32.const 1.44269504)))))
    (local.set $r (f32x4.sub (local.get $r) (f32x4.mul (local.get $n) (f32x4.splat (f32.const 0.693359375)))))
    (local.set $r (f32x4.sub (local.get $r) (f32x4.mul (local.get $n) (f32x4.splat (f32.const -2.12194440e-4)))))
    (local.set $y (f32x4.splat (f32.const 1.9875691500e-4)))
    (local.set $y (f32x4.add (f32x4.mul (local.get $y) (local.get $r)) (f32x4.splat (f32.const 1.3981999507e-3))))
    (local.set $y (f32x4.add (f32x4.mul (local.get $y) (local.get $r)) (f32x4.splat (f32.const 8.3334519073e-3))))
    (local.set $y (f32x4.add (f32x4.mul (local.get $y) (local.get $r)) (f32x4.splat (f32.const 4.1665795894e-2))))
    (local.set $y (f32x4.add (f32x4.mul (local.get $y) (local.get $r)) (f32x4.splat (f32.const 1.6666665459e-1))))
    (local.set $y (f32x4.add (f32x4.mul (local.get $y) (local.get $r)) (f32x4.splat (f32.const 5.0000001201e-1))))
    (local.set $y (f32x4.mul (f32x4.mul (local.get $y) (local.get $r)) (local.get $r)))
    (local.set $y (f32x4.add (f32x4.add (local.get $y) (local.get $r)) (f32x4.splat (f32.const 1))))
    (v128.and
      (f32x4.gt (local.get $x) (f32x4.splat (f32.const -87)))
      (f32x4.mul (local.get $y)
        (i32x4.shl (i32x4.add (i32x4.trunc_sat_f32x4_s (local.get $n)) (i32x4.splat (i32.const 127))) (i32.const 23))))
  )

  ;; Turns each row of a matrix in panels of 8 columns into probabilities. m rows; stride is the bytes of a panel.
  ;; offsets holds a number for each column that is added first.
  (func (export "softmax")
    (param $scores i32) (param $offsets i32) (param $into i32) (param $m i32) (param $panels i32) (param $stride i32)
    (local $p i32) (local $at i32) (local $to i32) (local $o i32)
    (local $high v128) (local $sum v128) (local $e v128)
    (loop $rows
      (local.set $high (f32x4.splat (f32.const -3e38)))
      (local.set $at (local.get $scores))
      (local.set $o (local.get $offsets))
      (local.set $p (local.get $panels))
      (loop $next
        (local.set $high
          (f32x4.max (local.get $high) (f32x4.add (v128.load (local.get $at)) (v128.load (local.get $o)))))
        (local.set $high
          (f32x4.max (local.get $high)
            (f32x4.add (v128.load offset=16 (local.get $at)) (v128.load offset=16 (local.get $o)))))
        (local.set $at (i32.add (local.get $at) (local.get $stride)))
        (local.set $o (i32.add (local.get $o) (i32.const 32)))
        (br_if $next (local.tee $p (i32.sub (local.get $p) (i32.const 1))))
      )
      (local.set $high
        (f32x4.max (local.get $high)
          (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $high) (local.get $high))))
      (local.set $high
        (f32x4.max (local.get $high)
          (i8x16.shuffle 4 5 6 7 0 1 2 3 12 13 14 15 8 9 10 11 (local.get $high) (local.get $high))))
      (local.set $sum (f32x4.splat (f32.const 0)))
      (local.set $at (local.get $scores))
      (local.set $to (local.get $into))
      (local.set $o (local.get $offsets))
      (local.set $p (local.get $panels))
      (loop $next
        (local.set $e
          (call $exp
            (f32x4.sub (f32x4.add (v128.load (local.get $at)) (v128.load (local.get $o))) (local.get $high))))
        (v128.store (local.get $to) (local.get $e))
        (local.set $sum (f32x4.add (local.get $sum) (local.get $e)))
        (local.set $e
          (call $exp
            (f32x4.sub
              (f32x4.add (v128.load offset=16 (local.get $at)) (v128.load offset=16 (local.get $o)))
              (local.get $high))))
        (v128.store offset=16 (local.get $to) (local.get $e))
        (local.set $sum (f32x4.add (local.get $sum) (local.get $e)))
        (local.set $at (i32.add (local.get $at) (local.get $stride)))
        (local.set $to (i32.add (local.get $to) (local.get $stride)))
        (local.set $o (i32.add (local.get $o) (i32.const 32)))
        (br_if $next (local.tee $p (i32.sub (local.get $p) (i32.const 1))))
      )
      (local.set $sum
        (f32x4.add (local.get $sum)
          (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $sum) (local.get $sum))))
      (local.set $sum
        (f32x4.add (local.get $sum)
          (i8x16.shuffle 4 5 6 7 0 1 2 3 12 13 14 15 8 9 10 11 (local.get $sum) (local.get $sum))))
      (local.set $to (local.get $into))
      (local.set $p (local.get $panels))
      (loop $next
        (v128.store (local.get $to) (f32x4.div (v128.load (local.get $to)) (local.get $sum)))
        (v128.store offset=16 (local.get $to) (f32x4.div (v128.load offset=16 (local.get $to)) (local.get $sum)))
        (local.set $to (i32.add (local.get $to) (local.get $stride)))
        (br_if $next (local.tee $p (i32.sub (local.get $p) (i32.const 1))))
      )
      (local.set $scores (i32.add (local.get $scores) (i32.const 32)))
      (local.set $into (i32.add (local.get $into) (i32.const 32)))
      (br_if $rows (local.tee $m (i32.sub (local.get $m) (i32.const 1))))
    )
  )

  ;; into = weight of the row · into + scale · b, for a matrix of m rows in panels of 8 columns.
  (func (export "weigh")
    (param $into i32) (param $weights i32) (param $scale f32) (param $b i32) (param $m i32) (param $panels i32)
    (local $left i32) (local $w i32) (local $s v128) (local $r v128)
    (local.set $s (f32x4.splat (local.get $scale)))
    (loop $columns
      (local.set $w (local.get $weights))
      (local.set $left (local.get $m))
      (loop $rows
        (local.set $r (v128.load32_splat (local.get $w)))
        (v128.store (local.get $into)
          (f32x4.add
            (f32x4.mul (local.get $r) (v128.load (local.get $into)))
            (f32x4.mul (local.get $s) (v128.load (local.get $b)))))
        (v128.store offset=16 (local.get $into)
          (f32x4.add
            (f32x4.mul (local.get $r) (v128.load offset=16 (local.get $into)))
            (f32x4.mul (local.get $s) (v128.load offset=16 (local.get $b)))))
        (local.set $into (i32.add (local.get $into) (i32.const 32)))
        (local.set $b (i32.add (local.get $b) (i32.const 32)))
        (local.set $w (i32.add (local.get $w) (i32.const 4)))
        (br_if $rows (local.tee $left (i32.sub (local.get $left) (i32.const 1))))
      )
      (br_if $columns (local.tee $panels (i32.sub (local.get $panels) (i32.const 1))))
    )
  )
)
