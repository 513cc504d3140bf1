# SPDX-License-Identifier: GPL-3.0-or-later
# Writes data sets that come with R, and what R makes of them, to standard output as JSON: several factors with
# a covariate, gauge studies, studies together, lines with bounds, power of paired and good-enough plans.
# Run: Rscript tests/reference/make_models_reference.R > tests/data/reference_models.json
suppressPackageStartupMessages({library(jsonlite); library(car); library(survival); library(lme4)})
options(contrasts = c("contr.sum", "contr.poly"))

# Several factors -------------------------------------------------------------------------------------------
factor_set <- function(name, y, factors, covariate = NULL, type = 2) {
  f <- lapply(factors, function(x) factor(x, unique(as.character(x))))
  d <- as.data.frame(f); names(d) <- c("A", "B", "C")[seq_along(f)]; d$y <- y
  rhs <- paste(names(d)[seq_along(f)], collapse = "*")
  if (!is.null(covariate)) { d$m <- covariate - mean(covariate); rhs <- paste("m +", rhs) }
  fit <- lm(as.formula(paste("y ~", rhs)), d); a <- Anova(fit, type = type)
  if (type == 3) a <- a[rownames(a) != "(Intercept)", ]
  s <- summary(fit)$coefficients; mid <- list()
  # Adjusted means: predictions over all combinations alike, at the covariate's mean.
  grid <- expand.grid(lapply(f, levels)); names(grid) <- names(d)[seq_along(f)]; if (!is.null(covariate)) grid$m <- 0
  X <- model.matrix(delete.response(terms(fit)), grid, xlev = fit$xlevels); means <- c(); ses <- c(); diffs <- c(); dses <- c()
  whole <- !any(is.na(coef(fit)))
  if (whole) for (k in seq_along(f)) { first <- NULL
    for (l in levels(f[[k]])) { r <- colMeans(X[grid[[k]] == l, , drop = FALSE])
      means <- c(means, sum(r * coef(fit))); ses <- c(ses, sqrt(drop(t(r) %*% vcov(fit) %*% r)))
      if (is.null(first)) first <- r else { q <- r - first; diffs <- c(diffs, sum(q * coef(fit))); dses <- c(dses, sqrt(drop(t(q) %*% vcov(fit) %*% q))) } } }
  keep <- nrow(a)
  list(name = name, y = y, factors = lapply(f, as.integer), covariate = covariate, type = type,
    df = I(a$Df), ss = I(a[["Sum Sq"]]), F = I(a[["F value"]][-keep]), p = I(a[["Pr(>F)"]][-keep]),
    means = I(means), means_se = I(ses), differences = I(diffs), differences_se = I(dses),
    slope = if (!is.null(covariate)) unname(coef(fit)["m"]) else NULL, slope_se = if (!is.null(covariate)) s["m", 2] else NULL)
}
w <- warpbreaks; uneven <- w[-c(1, 2, 11, 30, 31, 52), ]
n3 <- npk; n3u <- n3[-c(2, 7), ]
tg <- ToothGrowth; cc <- CO2[CO2$conc %in% c(95, 250, 500), ]; ccu <- cc[-c(1, 5, 14), ]
mt <- mtcars
factors <- list(
  factor_set("warpbreaks", w$breaks, list(w$wool, w$tension)), factor_set("warpbreaks, uneven", uneven$breaks, list(uneven$wool, uneven$tension)),
  factor_set("warpbreaks, uneven", uneven$breaks, list(uneven$wool, uneven$tension), type = 3),
  factor_set("npk", n3$yield, list(n3$N, n3$P, n3$K)), factor_set("npk, uneven", n3u$yield, list(n3u$N, n3u$P, n3u$K)),
  factor_set("npk, uneven", n3u$yield, list(n3u$N, n3u$P, n3u$K), type = 3),
  factor_set("CO2", cc$uptake, list(cc$Type, cc$Treatment, cc$conc)), factor_set("CO2, uneven", ccu$uptake, list(ccu$Type, ccu$Treatment, ccu$conc), type = 3),
  factor_set("CO2, uneven", ccu$uptake, list(ccu$Type, ccu$Treatment, ccu$conc)),
  factor_set("PlantGrowth", PlantGrowth$weight, list(PlantGrowth$group)),
  factor_set("mtcars mpg by am, weight", mt$mpg, list(mt$am), mt$wt), factor_set("mtcars mpg by cyl, weight", mt$mpg, list(mt$cyl), mt$wt, 3),
  factor_set("mtcars mpg by am and vs, weight", mt$mpg, list(mt$am, mt$vs), mt$wt), factor_set("mtcars mpg by am and vs, weight", mt$mpg, list(mt$am, mt$vs), mt$wt, 3),
  factor_set("ToothGrowth by supp, dose", tg$len, list(tg$supp), tg$dose), factor_set("ToothGrowth", tg$len, list(tg$supp, tg$dose), type = 3))

# Gauge studies: mean squares of a crossed layout, and the components that follow ----------------------------
gauge_set <- function(name, y, part, person) {
  part <- factor(part, unique(as.character(part))); person <- factor(person, unique(as.character(person)))
  a <- anova(lm(y ~ part * person)); ms <- a[["Mean Sq"]]; df <- a$Df; p <- nlevels(part); o <- nlevels(person); r <- length(y) / p / o
  out <- a[["Pr(>F)"]][3] > .25; e <- ms[4]; po <- ms[3]
  if (out) { e <- (ms[3] * df[3] + ms[4] * df[4]) / (df[3] + df[4]); po <- e }
  v <- function(x) max(0, x); int <- v((po - e) / r); op <- v((ms[2] - po) / (p * r)); pt <- v((ms[1] - po) / (o * r))
  vc <- as.data.frame(VarCorr(lmer(y ~ (1 | part) + (1 | person) + (1 | part:person), control = lmerControl(optimizer = "bobyqa", optCtrl = list(rhoend = 1e-12), calc.derivs = FALSE))))
  lmer_sd <- setNames(vc$sdcor, vc$grp)
  list(name = name, lmer = as.list(lmer_sd), y = y, part = as.integer(part), person = as.integer(person), repeatability = sqrt(e), interaction = sqrt(int),
    operator = sqrt(op), gauge = sqrt(e + int + op), part_sd = sqrt(pt), total = sqrt(e + int + op + pt), p = a[["Pr(>F)"]][3], left_out = out)
}
Machines <- as.data.frame(nlme::Machines) # workers on machines, three readings of each
q <- as.data.frame(CO2)[CO2$conc %in% c(350, 500, 675), ]
gauges <- list(gauge_set("nlme::Machines", Machines$score, as.character(Machines$Worker), as.character(Machines$Machine)),
  gauge_set("warpbreaks", w$breaks, w$tension, w$wool), gauge_set("ToothGrowth", tg$len, tg$dose, tg$supp),
  gauge_set("CO2 by treatment and type", q$uptake, q$Treatment, q$Type))

# Studies together: the restricted likelihood of a random mean with known errors -------------------------------------------------------------------
pool_set <- function(name, value, se) {
  reml <- function(t2) { w <- 1 / (se^2 + t2); mu <- sum(w * value) / sum(w); sum(log(se^2 + t2)) + log(sum(w)) + sum(w * (value - mu)^2) }
  grid <- c(0, exp(seq(log(1e-6), log(1), length.out = 4000))) * diff(range(value))^2
  best <- which.min(sapply(grid, reml)); t2 <- if (best == 1) 0 else optimize(reml, grid[pmin(length(grid), best + c(-1, 1))], tol = 1e-14)$minimum
  w <- 1 / (se^2 + t2); mu <- sum(w * value) / sum(w); k <- length(value); qh <- sum(w * (value - mu)^2) / (k - 1)
  s <- sqrt(max(1, qh) / sum(w)); w0 <- 1 / se^2; Q <- sum(w0 * (value - sum(w0 * value) / sum(w0))^2)
  list(name = name, value = value, se = se, pooled = mu, pooled_se = s, ci = I(mu + c(-1, 1) * qt(.975, k - 1) * s), between = sqrt(t2),
    Q = Q, p = pchisq(Q, k - 1, lower.tail = FALSE),
    next_study = if (k > 2) I(mu + c(-1, 1) * qt(.975, k - 2) * sqrt(t2 + s^2)) else NULL)
}
by <- function(d, v, g) list(value = as.numeric(tapply(d[[v]], d[[g]], mean)), se = as.numeric(tapply(d[[v]], d[[g]], function(x) sd(x) / sqrt(length(x)))))
sets <- list(PlantGrowth = by(PlantGrowth, "weight", "group"), InsectSprays = by(InsectSprays, "count", "spray"), chickwts = by(chickwts, "weight", "feed"),
  morley = by(morley, "Speed", "Expt"), "sleep, two" = by(sleep, "extra", "group"))
pools <- lapply(names(sets), function(n) pool_set(n, sets[[n]]$value, sets[[n]]$se))

# Lines with bounds -----------------------------------------------------------------------------------------
line_set <- function(name, x, value, event, dist) {
  fit <- survreg(Surv(value, event) ~ x, dist = dist, control = survreg.control(rel.tolerance = 1e-14, maxiter = 200))
  list(name = name, x = x, value = value, bound = 1 - event, distribution = dist, intercept = unname(coef(fit)[1]), slope = unname(coef(fit)[2]),
    intercept_se = sqrt(vcov(fit)[1, 1]), slope_se = sqrt(vcov(fit)[2, 2]), scale = fit$scale, log_likelihood = fit$loglik[2])
}
l <- lung[!is.na(lung$ph.karno), ]
lines <- unlist(lapply(c("gaussian", "lognormal", "weibull"), function(d) list(
  line_set("survival::ovarian over age", ovarian$age, ovarian$futime, ovarian$fustat, d), line_set("survival::lung over age", lung$age, lung$time, lung$status - 1, d),
  line_set("survival::lung over ph.karno", l$ph.karno, l$time, l$status - 1, d), line_set("cars, none bounded", cars$speed, cars$dist, rep(1, 50), d))), recursive = FALSE)

# Power -----------------------------------------------------------------------------------------------------
paired_power <- function(d, n, groups, alpha = .05) { q <- qt(1 - alpha / 2 / (groups - 1), n - 1); l <- d * sqrt(n / 2)
  1 - pt(q, n - 1, l) + pt(-q, n - 1, l) }
good_power <- function(d, n, groups, alpha = .05) {
  df <- groups * (n - 1); 
  below <- function(c) integrate(function(s) sapply(s, function(u) 2 * u * df * dchisq(df * u^2, df) *
    integrate(function(z) dnorm(z) * pnorm((c * u + z * sqrt(.5)) / sqrt(.5))^(groups - 1), -8, 8, rel.tol = 1e-12)$value), 1e-4, 6, rel.tol = 1e-11, subdivisions = 500)$value
  q <- if (groups == 2) qt(1 - alpha, df) else uniroot(function(c) below(c) - (1 - alpha), c(.5, 12), tol = 1e-11)$root
  list(critical = q, power = 1 - pt(q, df, d * sqrt(n / 2)))
}
cases <- expand.grid(d = c(1, 2, 3.2), n = c(3, 5, 12), groups = c(2, 4))
power <- lapply(seq_len(nrow(cases)), function(i) with(cases[i, ], { g <- good_power(d, n, groups)
  list(d = d, n = n, groups = groups, paired = paired_power(d, n, groups), good_enough = g$power, critical = g$critical) }))

# Paired effects: log ratios --------------------------------------------------------------------------------
pair_set <- function(name, a, b) { t <- t.test(log(b), log(a), paired = TRUE); d <- t.test(b, a, paired = TRUE)
  list(name = name, a = a, b = b, ratio = exp(mean(log(b / a))), ci = I(exp(as.numeric(t$conf.int))), t = unname(t$statistic),
    difference = mean(b - a), difference_ci = I(as.numeric(d$conf.int))) }
pairs <- list(pair_set("anscombe x1 and x4", anscombe$x1, anscombe$x4), pair_set("anscombe y1 and y3", anscombe$y1, anscombe$y3),
  pair_set("immer barley, two years", MASS::immer$Y1, MASS::immer$Y2), pair_set("shoes of boys", MASS::shoes$A, MASS::shoes$B))

cat(toJSON(list(factors = factors, gauges = gauges, pools = pools, lines = lines, power = power, pairs = pairs), digits = NA, auto_unbox = TRUE, null = "null", pretty = FALSE))
