# SPDX-License-Identifier: GPL-3.0-or-later
# Recomputes the claims of the first verdict of an open data package and compares them with the kept ones.
# Run it in the package's folder: Rscript recompute.R. Needs base R alone. Formulas: the package's README.

# What |t| must exceed so that all comparisons with one reference hold together (Dunnett 1955).
dunnett_critical <- function(sizes, reference_size, df, confidence) {
  if (length(sizes) == 1) return(qt(0.5 + confidence / 2, df))
  loading <- sqrt(sizes / (sizes + reference_size))
  z <- seq(-8.5, 8.5, length.out = 301)
  log_spread <- seq(0.5 * log(qchisq(1e-14, df) / df), 0.5 * log(qchisq(1 - 1e-13, df) / df), length.out = 401)
  spread <- exp(log_spread)
  z_weight <- dnorm(z) * (z[2] - z[1])
  spread_weight <- 2 * df * spread^2 * dchisq(df * spread^2, df) * (log_spread[2] - log_spread[1])
  held <- function(c) {
    product <- matrix(1, length(spread), length(z))
    for (rho in loading) {
      rest <- sqrt(1 - rho^2)
      product <- product * (pnorm(outer(c * spread, rho * z, "+") / rest) - pnorm(outer(-c * spread, rho * z, "+") / rest))
    }
    sum(spread_weight * (product %*% z_weight))
  }
  uniroot(function(c) held(c) - confidence, c(0.5, 1000), tol = 1e-10)$root
}

# Scatters that lean on each other a little (Smyth 2004): variances v, each with d degrees of freedom.
moderated <- function(v, d) {
  k <- length(v)
  common <- sum(d * v) / sum(d)
  unbiased <- log(v) - digamma(d / 2) + log(d / 2)
  towards <- sqrt(common * min(common, exp(mean(unbiased))))
  more <- 0.4 * (1 - 2 / k) * mean(d)
  beyond <- var(unbiased) - mean(trigamma(d / 2))
  if (more > 0 && beyond > trigamma(more / 2))
    more <- uniroot(function(x) trigamma(x / 2) - beyond, c(1e-9, more), tol = 1e-14)$root
  list(v = (more * towards + d * v) / (more + d), d = d + more)
}

verdicts <- read.csv("verdicts.csv", check.names = FALSE)
first <- verdicts[verdicts$test == verdicts$test[1] & verdicts$property == verdicts$property[1], ]
claims <- first[!is.na(first$effect), ]
if (nrow(claims) == 0 || claims$family[1] != "reference") {
  cat("The first verdict is made in another way than this script knows:", first$procedure[1], "\n")
  quit(status = 2)
}
rows <- read.csv("values.csv")
rows <- rows[rows$test == first$test[1] & rows$property == first$property[1] & rows$counts == 1, ]
reference <- first$rail[first$is_reference == 1][1]
ratio <- claims$scale[1] == "ratio"
compared <- c(reference, claims$rail)
values <- lapply(compared, function(rail) rows$value[rows$rail == rail])
# A rail that is known from a summary has no values here; its row tells number, mean and scatter.
own <- first[match(compared, first$rail), ]
told <- !is.na(own$from_summary) & own$from_summary != ""
m <- ifelse(told, own$mean, sapply(values, function(x) if (length(x)) mean(x) else NA))
v <- ifelse(told, own$sd^2, sapply(values, function(x) if (length(x) > 1) var(x) else NA)) / (if (ratio) m^2 else 1)
n <- ifelse(told, own$n, sapply(values, length))
# Where bounds are among its values, a rail's own scatter says nothing.
telling <- sapply(compared, function(rail) first$bounds[first$rail == rail] == 0)
d <- n - 1
df <- sum(d[telling])
spread <- claims$spread[1]
if (spread == "common") v[] <- sum((d * v)[telling]) / df
if (spread == "moderated") {
  leaning <- moderated(v, d)
  v <- leaning$v
  d <- leaning$d
}
half <- sapply(seq_along(n)[-1], function(i) {
  error <- c(v[1] / n[1], v[i] / n[i])
  f <- if (spread == "common") df
       else if (spread == "own of the smaller") min(d[1], d[i])
       else min(df, sum(error)^2 / (error[1]^2 / d[1] + error[2]^2 / d[i]))
  dunnett_critical(n[-1], n[1], f, claims$confidence[1]) * sqrt(sum(error))
})
effect <- if (ratio) m[-1] / m[1] else m[-1] - m[1]
low <- if (ratio) effect * exp(-half) else effect - half
high <- if (ratio) effect * exp(half) else effect + half
cat(sprintf("%s: %.6g (%.6g to %.6g); kept %.6g (%.6g to %.6g)\n", claims$rail, effect, low, high,
            claims$effect, claims$effect_low, claims$effect_high), sep = "")
kept <- c(claims$effect, claims$effect_low, claims$effect_high)
worst <- max(abs(c(effect, low, high) - kept) / pmax(abs(kept), 1e-9))
cat(sprintf("largest relative difference %.1e: %s\n", worst, if (worst < 1e-6) "agrees" else "DIFFERS"))
quit(status = if (worst < 1e-6) 0 else 1)
