# SPDX-License-Identifier: GPL-3.0-or-later
# Writes data sets that come with R, and what R makes of them, to standard output as JSON.
# Run: Rscript tests/reference/make_reference.R > from_r.json; then make_reference.py adds SciPy's values.
suppressPackageStartupMessages({library(jsonlite); library(mvtnorm)})

long <- function(name, value, group) {
  keep <- !is.na(value)
  list(name = name, value = value[keep], group = as.character(group)[keep])
}
sirstv <- data.frame(  # NIST StRD, analysis of variance, "SiRstv"
  value = c(196.3052, 196.1240, 196.1890, 196.2569, 196.3403, 196.3042, 196.3825, 196.1669, 196.3257, 196.0422,
            196.1303, 196.2005, 196.2889, 196.0343, 196.1811, 196.2795, 196.1748, 196.1494, 196.1485, 195.9885,
            196.2119, 196.1051, 196.1850, 196.0052, 196.2090),
  group = rep(1:5, each = 5))
sets <- list(
  long("PlantGrowth: weight by group", PlantGrowth$weight, PlantGrowth$group),
  long("InsectSprays: count by spray", InsectSprays$count, InsectSprays$spray),
  long("chickwts: weight by feed", chickwts$weight, chickwts$feed),
  long("iris: Sepal.Length by Species", iris$Sepal.Length, iris$Species),
  long("iris: Petal.Width by Species", iris$Petal.Width, iris$Species),
  long("warpbreaks: breaks by tension", warpbreaks$breaks, warpbreaks$tension),
  long("ToothGrowth: len by dose", ToothGrowth$len, ToothGrowth$dose),
  long("morley: Speed by Expt", morley$Speed, morley$Expt),
  long("sleep: extra by group", sleep$extra, sleep$group),
  long("airquality: Ozone by Month", airquality$Ozone, airquality$Month),
  long("OrchardSprays: decrease by treatment", OrchardSprays$decrease, OrchardSprays$treatment),
  long("mtcars: mpg by cyl", mtcars$mpg, mtcars$cyl),
  long("NIST SiRstv: resistance by instrument", sirstv$value, sirstv$group))

describe <- function(x) {
  q <- quantile(x, c(.25, .5, .75), type = 7, names = FALSE)
  n <- length(x)
  half <- if (n > 1) qt(.975, n - 1) * sd(x) / sqrt(n) else NA
  list(n = n, mean = mean(x), sd = sd(x), cv = sd(x) / abs(mean(x)), se = sd(x) / sqrt(n),
       ci = c(mean(x) - half, mean(x) + half), median = q[2], q1 = q[1], q3 = q[3], min = min(x), max = max(x),
       mad = mad(x, constant = 1))
}
dunnett <- function(d, levels) {
  fit <- aov(value ~ group, d)
  s2 <- deviance(fit) / df.residual(fit)
  n <- as.numeric(table(d$group)[levels]); m <- as.numeric(tapply(d$value, d$group, mean)[levels])
  k <- length(levels) - 1
  l <- sqrt(n[-1] / (n[-1] + n[1]))
  R <- outer(l, l); diag(R) <- 1
  t <- (m[-1] - m[1]) / sqrt(s2 * (1 / n[-1] + 1 / n[1]))
  set.seed(1)
  p <- sapply(abs(t), function(c) 1 - pmvt(rep(-c, k), rep(c, k), corr = R, df = df.residual(fit),
                                           algorithm = GenzBretz(maxpts = 4e6, abseps = 1e-7)))
  list(t = I(t), p = I(as.numeric(p)))
}
# Fieller (1954): ratio mean(y) / mean(x), own variances, Satterthwaite's df at the estimate. In R because SciPy's
# t quantile carries only eight digits at fractional degrees of freedom.
fieller <- function(x, y) {
  vx <- var(x) / length(x); vy <- var(y) / length(y); r <- mean(y) / mean(x)
  df <- (vy + r^2 * vx)^2 / (vy^2 / (length(y) - 1) + r^4 * vx^2 / (length(x) - 1))
  t <- qt(.975, df)
  a <- mean(x)^2 - t^2 * vx; b <- -2 * mean(x) * mean(y); c <- mean(y)^2 - t^2 * vy
  if (a <= 0) return(list(value = r, ci = NULL))
  root <- sqrt(b^2 - 4 * a * c)
  list(value = r, ci = c((-b - root) / (2 * a), (-b + root) / (2 * a)))
}
analyse <- function(s) {
  levels <- unique(s$group)
  d <- data.frame(value = s$value, group = factor(s$group, levels))
  a <- summary(aov(value ~ group, d))[[1]]
  w <- oneway.test(value ~ group, d); kw <- kruskal.test(value ~ group, d); b <- bartlett.test(value ~ group, d)
  pairs <- list(); p <- c()
  for (i in seq_along(levels)) for (j in seq_along(levels)) if (i < j) {
    x <- d$value[d$group == levels[i]]; y <- d$value[d$group == levels[j]]
    tp <- t.test(y, x, var.equal = TRUE); tw <- t.test(y, x)
    mw <- suppressWarnings(wilcox.test(x, y))
    p <- c(p, tw$p.value)
    pairs[[length(pairs) + 1]] <- list(a = levels[i], b = levels[j], difference = mean(y) - mean(x),
      pooled_t = list(t = unname(tp$statistic), df = unname(tp$parameter), p = tp$p.value),
      welch_t = list(t = unname(tw$statistic), df = unname(tw$parameter), p = tw$p.value, ci = as.numeric(tw$conf.int)),
      ratio = fieller(x, y),
      mann_whitney = list(U = unname(mw$statistic), p = mw$p.value))
  }
  holm <- p.adjust(p, "holm")
  for (i in seq_along(pairs)) pairs[[i]]$welch_p_holm <- holm[i]
  c(s, list(levels = levels, describe = lapply(levels, function(l) describe(d$value[d$group == l])),
    anova = list(F = a$F[1], df1 = a$Df[1], df2 = a$Df[2], p = a$`Pr(>F)`[1], ss_between = a$`Sum Sq`[1], ss_within = a$`Sum Sq`[2]),
    welch = list(F = unname(w$statistic), df1 = unname(w$parameter[1]), df2 = unname(w$parameter[2]), p = w$p.value),
    kruskal_wallis = list(H = unname(kw$statistic), df = unname(kw$parameter), p = kw$p.value),
    bartlett = list(K2 = unname(b$statistic), df = unname(b$parameter), p = b$p.value),
    dunnett = dunnett(d, levels), pairs = pairs))
}
cat(toJSON(list(r_version = R.version.string, sets = lapply(sets, analyse)), auto_unbox = TRUE, digits = NA, pretty = FALSE))
