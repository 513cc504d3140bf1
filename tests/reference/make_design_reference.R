# SPDX-License-Identifier: GPL-3.0-or-later
# Writes data sets that come with R, and what R makes of them, to standard output as JSON: what the calls of
# "stats" beyond describe and compare are held against.
# Run: Rscript tests/reference/make_design_reference.R > tests/data/reference_designs.json
suppressPackageStartupMessages({library(jsonlite); library(survival); library(car); library(lme4)})
options(contrasts = c("contr.sum", "contr.poly"))

nist_esd <- c(-0.25, 0.68, 0.94, 1.15, 1.20, 1.26, 1.26, 1.34, 1.38, 1.43, 1.49, 1.49, 1.55, 1.56, 1.58, 1.65,
  1.69, 1.70, 1.76, 1.77, 1.81, 1.91, 1.94, 1.96, 1.99, 2.06, 2.09, 2.10, 2.14, 2.15, 2.23, 2.24, 2.26, 2.35,
  2.37, 2.40, 2.47, 2.54, 2.62, 2.64, 2.90, 2.92, 2.92, 2.93, 3.21, 3.26, 3.30, 3.59, 3.68, 4.30, 4.64, 5.34,
  5.42, 6.01)  # NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5.17.3
nist_grubbs <- c(199.31, 199.53, 200.19, 200.82, 201.92, 201.95, 202.18, 245.57)  # the same, 1.3.5.17.1

# Samples ---------------------------------------------------------------------------------------------------
grubbs <- function(x, alpha = .05) {
  n <- length(x); G <- max(abs(x - mean(x))) / sd(x)
  t <- qt(1 - alpha / (2 * n), n - 2)
  T <- sqrt(G^2 * n * (n - 2) / ((n - 1)^2 - n * G^2))
  list(G = G, critical = (n - 1) / sqrt(n) * sqrt(t^2 / (n - 2 + t^2)),
       p = min(1, 2 * n * pt(T, n - 2, lower.tail = FALSE)), index = which.max(abs(x - mean(x))) - 1)
}
esd <- function(x, alpha = .05) {  # Rosner 1983, formulas (2.5) and (2.6)
  n <- length(x); keep <- seq_along(x); out <- c(); found <- 0
  for (i in 1:(n %/% 2)) {
    y <- x[keep]; if (length(y) < 3 || sd(y) == 0) break
    j <- which.max(abs(y - mean(y))); R <- abs(y[j] - mean(y)) / sd(y)
    p <- 1 - alpha / (2 * (n - i + 1)); t <- qt(p, n - i - 1)
    lambda <- (n - i) * t / sqrt((n - i - 1 + t^2) * (n - i + 1))
    out <- c(out, keep[j] - 1); keep <- keep[-j]
    if (R > lambda) found <- i
  }
  I(head(out, found))
}
anderson <- function(x) {
  x <- sort(x); n <- length(x); z <- (x - mean(x)) / sd(x)
  -n - mean((2 * seq_len(n) - 1) * (pnorm(z, log.p = TRUE) + pnorm(rev(z), lower.tail = FALSE, log.p = TRUE)))
}
weibull_full <- function(time, bound) {
  fit <- survreg(Surv(time, 1 - bound) ~ 1, dist = "weibull", control = list(rel.tolerance = 1e-14, maxiter = 200))
  z <- qnorm(.975); v <- vcov(fit); k <- 1 / fit$scale; lambda <- exp(coef(fit)[[1]])
  list(shape = k, shape_ci = k * exp(c(-1, 1) * z * sqrt(v[2, 2])), scale = lambda,
       scale_ci = lambda * exp(c(-1, 1) * z * sqrt(v[1, 1])), log_likelihood = fit$loglik[1],
       b10 = qweibull(.1, k, lambda), b50 = qweibull(.5, k, lambda), mean = lambda * gamma(1 + 1 / k))
}
weibull_ad <- function(x, fit) {
  x <- sort(x); n <- length(x); i <- seq_len(n)
  -n - mean((2 * i - 1) * (pweibull(x, fit$shape, fit$scale, log.p = TRUE) +
                           pweibull(rev(x), fit$shape, fit$scale, lower.tail = FALSE, log.p = TRUE)))
}
# Lawless (1982), section 4.1.2, as the double integral over both pivots: slow, and not the formula of the program.
lawless <- function(x, p) {
  fit <- weibull_full(x, rep(0, length(x))); n <- length(x)
  a <- (log(x) - log(fit$scale)) * fit$shape
  # Over v = ln z2 and s = z1 z2.
  over <- function(upper) integrate(function(v) sapply(v, function(one) {
      z2 <- exp(one)
      inner <- integrate(function(s) exp(n * s - exp(s) * sum(exp(a * z2)) + n * log(sum(exp(a * z2)))), -40 - log(n),
                         min(upper(z2) * z2, 12), rel.tol = 1e-11, subdivisions = 2000)$value
      inner * exp((n - 1) * one + sum(a) * z2 - n * log(sum(exp(a * z2))))
    }), -12, 4, rel.tol = 1e-10, subdivisions = 2000)$value
  all <- over(function(z2) 12 / z2); w <- log(-log(1 - p))
  q <- uniroot(function(q) over(function(z2) q + w / z2) / all - .95, c(1, 30), tol = 1e-9)$root
  fit$scale * exp(-q / fit$shape)
}
k_factor <- function(n, share) qt(.95, n - 1, ncp = qnorm(share) * sqrt(n)) / sqrt(n)

sample_set <- function(name, x, with_lawless = FALSE) {
  n <- length(x); shapiro <- shapiro.test(x); fit <- weibull_full(x, rep(0, n))
  list(name = name, value = x, shapiro = c(shapiro$statistic[[1]], shapiro$p.value), a2 = anderson(x),
       grubbs = grubbs(x), esd = esd(x), weibull = c(fit, anderson_darling = weibull_ad(x, fit)),
       k_a = if (n < 200) k_factor(n, .99), k_b = if (n < 200) k_factor(n, .9),  # R's noncentral t ends at 37.62
       weibull_a = if (with_lawless) lawless(x, .01), weibull_b = if (with_lawless) lawless(x, .1))
}
samples <- list(
  sample_set("chickwts: casein", chickwts$weight[chickwts$feed == "casein"], TRUE),
  sample_set("PlantGrowth: ctrl", PlantGrowth$weight[PlantGrowth$group == "ctrl"], TRUE),
  sample_set("PlantGrowth: trt1, five", PlantGrowth$weight[PlantGrowth$group == "trt1"][1:5], TRUE),
  sample_set("morley: first four", morley$Speed[1:4], TRUE),
  sample_set("iris: Sepal.Width", iris$Sepal.Width),
  sample_set("rivers", rivers),
  sample_set("trees: Volume", trees$Volume),
  sample_set("faithful: waiting", faithful$waiting),
  sample_set("NIST 1.3.5.17.1", nist_grubbs),
  sample_set("women: height, three", c(58, 61, 71)))

# Bounds ----------------------------------------------------------------------------------------------------
bound_set <- function(name, value, event, group) {
  group <- as.character(group)
  groups <- lapply(unique(group), function(g) {
    use <- group == g; curve <- survfit(Surv(value[use], event[use]) ~ 1); at <- curve$n.event > 0
    list(group = g, weibull = weibull_full(value[use], 1 - event[use]), value = I(curve$time[at]),
         at_risk = I(curve$n.risk[at]), events = I(curve$n.event[at]), survival = I(curve$surv[at]),
         se = I((curve$std.err * curve$surv)[at]), median = summary(curve)$table[["median"]])
  })
  test <- survdiff(Surv(value, event) ~ group)
  list(name = name, value = value, bound = 1 - event, group = group, groups = groups,
       log_rank = list(chi2 = test$chisq, df = length(unique(group)) - 1,
                       p = pchisq(test$chisq, length(unique(group)) - 1, lower.tail = FALSE)))
}
used <- lung[!is.na(lung$ph.ecog) & lung$ph.ecog < 3, ]
bounds <- list(
  bound_set("survival::aml by x", aml$time, aml$status, aml$x),
  bound_set("survival::ovarian by rx", ovarian$futime, ovarian$fustat, ovarian$rx),
  bound_set("survival::lung by sex", lung$time, lung$status - 1, lung$sex),
  bound_set("survival::lung by ph.ecog", used$time, used$status - 1, used$ph.ecog))

# Pairs -----------------------------------------------------------------------------------------------------
pair_set <- function(name, before, after) {
  t <- t.test(after, before, paired = TRUE); w <- suppressWarnings(wilcox.test(after, before, paired = TRUE))
  list(name = name, before = before, after = after, mean_difference = t$estimate[[1]], t = t$statistic[[1]],
       df = t$parameter[[1]], p = t$p.value, ci = as.numeric(t$conf.int), V = w$statistic[[1]], wilcoxon_p = w$p.value)
}
pairs <- list(
  pair_set("sleep", sleep$extra[sleep$group == 1], sleep$extra[sleep$group == 2]),
  pair_set("anscombe: x1, y1", anscombe$x1, anscombe$y1),
  pair_set("iris: petal and sepal width, ties", iris$Petal.Width[1:50], iris$Sepal.Width[101:150]),
  pair_set("trees: girth and height over 5", trees$Girth, trees$Height / 5),
  pair_set("mtcars: drat and wt", mtcars$drat, mtcars$wt))

# Two factors -----------------------------------------------------------------------------------------------
two_set <- function(name, value, a, b, third = TRUE) {
  a <- factor(a); b <- factor(b); fit <- lm(value ~ a * b)
  rows <- function(table, names) lapply(names, function(n) list(df = table[n, "Df"], ss = table[n, "Sum Sq"],
                                                                F = table[n, "F value"], p = table[n, "Pr(>F)"]))
  terms <- c("a", "b", "a:b")
  list(name = name, value = value, a = as.character(a), b = as.character(b), type2 = rows(Anova(fit, type = 2), terms),
       type3 = if (third) rows(Anova(fit, type = 3), terms),
       residual = list(df = df.residual(fit), ss = deviance(fit)))
}
thin <- warpbreaks[-c(1, 2, 11, 20, 21, 22, 30, 45), ]
two <- list(
  two_set("ToothGrowth", ToothGrowth$len, ToothGrowth$supp, ToothGrowth$dose),
  two_set("warpbreaks", warpbreaks$breaks, warpbreaks$wool, warpbreaks$tension),
  two_set("warpbreaks, unbalanced", thin$breaks, thin$wool, thin$tension),
  two_set("mtcars: mpg by am, gear, empty cells", mtcars$mpg, mtcars$am, mtcars$gear, FALSE),
  two_set("npk: yield by N, P", npk$yield, npk$N, npk$P),
  two_set("esoph: ncases by agegp, tobgp", esoph$ncases, esoph$agegp, esoph$tobgp))

# Trends ----------------------------------------------------------------------------------------------------
trend_set <- function(name, x, y, degree) {
  fit <- lm(y ~ poly(x, degree, raw = TRUE)); s <- summary(fit); ci <- confint(fit)
  pure <- lm(y ~ factor(x)); lack <- NULL
  if (df.residual(pure) > 0 && df.residual(fit) > df.residual(pure)) {
    table <- anova(fit, pure); lack <- list(F = table$F[2], df1 = table$Df[2], df2 = table$Res.Df[2], p = table$`Pr(>F)`[2])
  }
  optimum <- NULL
  if (degree == 2) {
    b <- coef(fit)[[2]]; c <- coef(fit)[[3]]; v <- vcov(fit); t2 <- qt(.975, df.residual(fit))^2
    A <- 4 * (c^2 - t2 * v[3, 3]); B <- 4 * (b * c - t2 * v[2, 3]); C <- b^2 - t2 * v[2, 2]
    optimum <- list(x = -b / (2 * c), ci = if (A > 0) (-B + c(-1, 1) * sqrt(B^2 - 4 * A * C)) / (2 * A),
                    kind = if (c < 0) "maximum" else "minimum")
  }
  list(name = name, x = x, y = y, degree = degree, value = coef(fit)[], se = s$coefficients[, 2],
       p = s$coefficients[, 4], low = ci[, 1], high = ci[, 2], r2 = s$r.squared, adjusted_r2 = s$adj.r.squared,
       residual_sd = s$sigma, F = s$fstatistic[[1]],
       model_p = pf(s$fstatistic[[1]], s$fstatistic[[2]], s$fstatistic[[3]], lower.tail = FALSE), lack = lack,
       optimum = optimum)
}
trends <- unlist(lapply(1:3, function(d) list(
  trend_set("cars", cars$speed, cars$dist, d), trend_set("mtcars", mtcars$wt, mtcars$mpg, d),
  trend_set("airquality", airquality$Temp[!is.na(airquality$Ozone)], airquality$Ozone[!is.na(airquality$Ozone)], d),
  trend_set("women", women$height, women$weight, d),
  trend_set("ToothGrowth", ToothGrowth$dose, ToothGrowth$len, min(d, 2)),
  trend_set("pressure", pressure$temperature, pressure$pressure, d),
  trend_set("faithful", faithful$eruptions, faithful$waiting, d))), recursive = FALSE)

# Two groups within a margin, and blocks --------------------------------------------------------------------
tost_set <- function(name, a, b, margin) {
  lower <- t.test(b, a, mu = -margin, alternative = "greater"); upper <- t.test(b, a, mu = margin, alternative = "less")
  list(name = name, a = a, b = b, margin = margin, difference = mean(b) - mean(a), t_lower = lower$statistic[[1]],
       t_upper = upper$statistic[[1]], df = lower$parameter[[1]], p = max(lower$p.value, upper$p.value),
       ci90 = as.numeric(t.test(b, a, conf.level = .9)$conf.int))
}
group_of <- function(g) PlantGrowth$weight[PlantGrowth$group == g]
tosts <- list(
  tost_set("PlantGrowth", group_of("ctrl"), group_of("trt2"), 1),
  tost_set("PlantGrowth, narrow", group_of("ctrl"), group_of("trt1"), .2),
  tost_set("iris", iris$Sepal.Width[1:50], iris$Sepal.Width[101:150], .6),
  tost_set("mtcars", mtcars$qsec[mtcars$am == 0], mtcars$qsec[mtcars$am == 1], 2))
random_set <- function(name, value, group) {  # method of moments; balanced sets also by REML, which then agrees
  group <- as.character(group); table <- anova(lm(value ~ factor(group))); n <- as.numeric(base::table(group))
  n0 <- (sum(n) - sum(n^2) / sum(n)) / (length(n) - 1); ms <- table$`Mean Sq`
  between <- max(0, (ms[1] - ms[2]) / n0)
  reml <- NULL
  if (length(unique(n)) == 1 && between > 0)
    reml <- as.data.frame(VarCorr(lmer(value ~ 1 + (1 | group), control = lmerControl(optCtrl = list(maxfun = 1e5)))))$sdcor
  list(name = name, value = value, group = group, ms_between = ms[1], ms_within = ms[2], s_r = sqrt(ms[2]),
       s_between = sqrt(between), s_R = sqrt(ms[2] + between), reml = reml)
}
randoms <- list(
  random_set("lme4::Dyestuff", Dyestuff$Yield, Dyestuff$Batch),
  random_set("lme4::Dyestuff2, negative component", Dyestuff2$Yield, Dyestuff2$Batch),
  random_set("chickwts, unequal", chickwts$weight, chickwts$feed),
  random_set("InsectSprays", InsectSprays$count, InsectSprays$spray),
  random_set("morley", morley$Speed, morley$Expt))

# Each rail with the first one: ratios of means with a common share of scatter, and Dunnett's differences --------
dunnett_cdf <- function(c, l, df) {  # P(all |T_i| <= c), by R's own adaptive quadrature
  known <- function(s) integrate(function(z) {
    p <- dnorm(z)
    for (li in l) p <- p * (pnorm((li * z + c * s) / sqrt(1 - li^2)) - pnorm((li * z - c * s) / sqrt(1 - li^2)))
    p
  }, -8, 8, rel.tol = 1e-10)$value
  reach <- sqrt(qchisq(c(1e-13, 1 - 1e-13), df) / df)
  integrate(function(s) 2 * df * s * dchisq(df * s^2, df) * sapply(s, known), reach[1], reach[2], rel.tol = 1e-10)$value
}
many_set <- function(name, value, group, ratio) {
  group <- factor(as.character(group), levels = unique(as.character(group)))
  n <- as.numeric(table(group)); m <- as.numeric(tapply(value, group, mean)); v <- as.numeric(tapply(value, group, var))
  if (ratio) v <- v / m^2
  df <- sum(n - 1); s2 <- sum((n - 1) * v) / df; k <- length(n)
  crit <- if (k == 2) qt(.975, df) else uniroot(function(c) dunnett_cdf(c, sqrt(n[-1] / (n[-1] + n[1])), df) - .95, c(1.9, 6),
                                                tol = 1e-9)$root
  se <- sqrt(s2 * (1 / n[-1] + 1 / n[1]))
  estimate <- if (ratio) m[-1] / m[1] else m[-1] - m[1]
  t <- (if (ratio) log(estimate) else estimate) / se
  list(name = name, value = value, group = as.character(group), ratio = ratio, critical = crit, scatter = sqrt(s2),
       df = df, estimate = I(estimate), t = I(t), low = I(if (ratio) estimate * exp(-crit * se) else estimate - crit * se),
       high = I(if (ratio) estimate * exp(crit * se) else estimate + crit * se),
       spread_p = bartlett.test(if (ratio) value / ave(value, group) else value, group)$p.value)
}
many <- unlist(lapply(c(TRUE, FALSE), function(r) list(
  many_set("PlantGrowth", PlantGrowth$weight, PlantGrowth$group, r), many_set("chickwts", chickwts$weight, chickwts$feed, r),
  many_set("iris", iris$Sepal.Length, iris$Species, r), many_set("morley", morley$Speed, morley$Expt, r),
  many_set("warpbreaks", warpbreaks$breaks, warpbreaks$tension, r),
  many_set("ToothGrowth, two", ToothGrowth$len, ToothGrowth$supp, r))), recursive = FALSE)

# Resampling: a million drawings, whose own error is a thousandth of the interval -----------------------------
boot_set <- function(name, x, y, statistic, value) {
  set.seed(1); N <- 1e6
  draw <- function() if (is.null(y)) value(sample(x, replace = TRUE)) else value(sample(x, replace = TRUE), sample(y, replace = TRUE))
  drawn <- replicate(N, draw()); whole <- if (is.null(y)) value(x) else value(x, y)
  z0 <- qnorm(mean(drawn < whole) + .5 * mean(drawn == whole))
  jack <- function(v, f) { l <- sapply(seq_along(v), function(i) f(v[-i])); (length(v) - 1) * (mean(l) - l) / length(v) }
  l <- if (is.null(y)) jack(x, value) else c(jack(x, function(v) value(v, y)), jack(y, function(v) value(x, v)))
  a <- sum(l^3) / (6 * sum(l^2)^1.5); z <- z0 + qnorm(c(.025, .975))
  list(name = name, x = x, y = y, statistic = statistic, percentile = quantile(drawn, c(.025, .975), names = FALSE),
       bca = quantile(drawn, pnorm(z0 + z / (1 - a * z)), names = FALSE))
}
ratio <- function(x, y) mean(y) / mean(x)
boots <- list(
  boot_set("rivers: mean of 20", rivers[1:20], NULL, "mean", mean),
  boot_set("trees: sd of Volume", trees$Volume, NULL, "sd", sd),
  boot_set("PlantGrowth: ratio", group_of("ctrl"), group_of("trt2"), "ratio", ratio))

version_of <- function(p) paste(p, packageVersion(p))
cat(toJSON(list(r_version = R.version.string, packages = sapply(c("survival", "car", "lme4"), version_of), samples = samples,
                nist_esd = list(value = nist_esd, outliers = esd(nist_esd)), bounds = bounds, pairs = pairs, two = two,
                trends = trends, equivalence = tosts, random = randoms, many = many, bootstrap = boots),
           digits = NA, auto_unbox = TRUE, null = "null", na = "null", pretty = FALSE))
