# SPDX-License-Identifier: GPL-3.0-or-later
# Writes data sets that come with R, and what R makes of them, to standard output as JSON: what the calls of
# "stats" beyond those of the contract are held against.
# Run: Rscript tests/reference/make_beyond_reference.R > tests/data/reference_beyond.json
suppressPackageStartupMessages({library(jsonlite); library(mvtnorm); library(survival); library(segmented)
  library(lme4); library(MASS)})

# Looks -----------------------------------------------------------------------------------------------------
# Bounds one after the other, so that the chance to have passed any of them is what the function has spent.
spent <- function(t, alpha, how) if (how == "alike") alpha * log(1 + (exp(1) - 1) * t) else 4 - 4 * pnorm(qnorm(1 - alpha / 4) / sqrt(t))
looks_set <- function(information, alpha, how) {
  bounds <- c()
  for (k in seq_along(information)) {
    t <- information[seq_len(k)]; corr <- outer(t, t, function(a, b) sqrt(pmin(a, b) / pmax(a, b)))
    inside <- function(c) {
      set.seed(1)
      if (k == 1) 1 - 2 * pnorm(-c) else pmvnorm(c(-bounds, -c), c(bounds, c), corr = corr, algorithm = GenzBretz(5e5, 1e-7, 0))[1]
    }
    bounds <- c(bounds, uniroot(function(c) (1 - inside(c)) - spent(information[k], alpha, how), c(1, 8), tol = 1e-9)$root)
  }
  list(information = I(information), alpha = alpha, spending = how, bounds = I(bounds))
}
looks <- list(looks_set(c(.5, 1), .05, "strict first"), looks_set(c(.5, 1), .05, "alike"),
  looks_set(c(.25, .5, .75, 1), .05, "strict first"), looks_set(c(.25, .5, .75, 1), .1, "alike"),
  looks_set(c(.3, .4, 1), .01, "strict first"), looks_set(c(.2, .7, .8, 1), .05, "alike"))

# Groups with bounds ----------------------------------------------------------------------------------------
bounded_set <- function(name, value, event, group, dist) {
  group <- factor(group, unique(as.character(group)))
  control <- survreg.control(rel.tolerance = 1e-14, maxiter = 200)
  fit <- survreg(Surv(value, event) ~ group, dist = dist, control = control)
  none <- survreg(Surv(value, event) ~ 1, dist = dist, control = control)
  k <- nlevels(group); v <- vcov(fit); z <- qnorm(.975)
  at <- cbind(1, rbind(0, diag(k - 1))); location <- as.numeric(at %*% coef(fit))
  se <- sqrt(diag(at %*% v[1:k, 1:k] %*% t(at)))
  list(name = name, value = value, bound = 1 - event, group = as.character(group), distribution = dist,
       location = I(location), location_se = I(se), scale = fit$scale, log_likelihood = fit$loglik[2],
       difference = I(as.numeric(coef(fit)[-1])), difference_se = I(sqrt(diag(v)[2:k])),
       chi2 = 2 * (fit$loglik[2] - none$loglik[2]), df = k - 1,
       p = pchisq(2 * (fit$loglik[2] - none$loglik[2]), k - 1, lower.tail = FALSE))
}
used <- lung[!is.na(lung$ph.ecog) & lung$ph.ecog < 3, ]
bounded <- unlist(lapply(c("gaussian", "lognormal", "weibull"), function(d) list(
  bounded_set("survival::aml by x", aml$time, aml$status, aml$x, d),
  bounded_set("survival::ovarian by rx", ovarian$futime, ovarian$fustat, ovarian$rx, d),
  bounded_set("survival::lung by ph.ecog", used$time, used$status - 1, used$ph.ecog, d),
  bounded_set("PlantGrowth, none bounded", PlantGrowth$weight, rep(1, 30), PlantGrowth$group, d))), recursive = FALSE)

# Where a line bends ----------------------------------------------------------------------------------------
# Least squares over the bend by a fine search, and segmented's own estimate beside it.
bend_set <- function(name, x, y) {
  rss <- function(psi) deviance(lm(y ~ x + pmax(0, x - psi)))
  inside <- sort(unique(x)); grid <- seq(inside[2], inside[length(inside) - 1], length.out = 20001)
  values <- sapply(grid, rss); b <- which.min(values)
  psi <- optimize(rss, grid[pmax(1, pmin(20001, b + c(-1, 1)))], tol = 1e-12)$minimum
  limit <- rss(psi) * (1 + qf(.95, 1, length(x) - 4) / (length(x) - 4)); within <- grid[values <= limit]
  edge <- function(a, b) uniroot(function(p) rss(p) - limit, c(a, b), tol = 1e-11)$root; step <- grid[2] - grid[1]
  low <- min(within); high <- max(within)
  fit <- lm(y ~ x + pmax(0, x - psi)); two <- segmented(lm(y ~ x), ~x, psi = psi)
  list(name = name, x = x, y = y, at = psi, segmented = two$psi[1, 2], rss = rss(psi),
       low = if (low > grid[1]) edge(low - step, low) else NULL, high = if (high < grid[20001]) edge(high, high + step) else NULL,
       before = coef(fit)[[2]], after = coef(fit)[[2]] + coef(fit)[[3]], line_rss = deviance(lm(y ~ x)))
}
bends <- list(bend_set("cars: dist over speed", cars$speed, cars$dist),
  bend_set("trees: Volume over Girth", trees$Girth, trees$Volume),
  bend_set("mtcars: mpg over hp", mtcars$hp, mtcars$mpg),
  bend_set("faithful: waiting over eruptions", faithful$eruptions, faithful$waiting),
  bend_set("Puromycin: rate over conc, treated", Puromycin$conc[1:12], Puromycin$rate[1:12]))

# Blocks ----------------------------------------------------------------------------------------------------
block_set <- function(name, value, group, block) {
  group <- factor(group, unique(as.character(group))); block <- factor(block)
  fit <- lmer(value ~ group + (1 | block), control = lmerControl(optimizer = "bobyqa", optCtrl = list(rhoend = 1e-10)))
  v <- as.data.frame(VarCorr(fit))$vcov
  list(name = name, value = value, group = as.character(group), block = as.character(block),
       effects = I(as.numeric(fixef(fit))), se = I(sqrt(diag(as.matrix(vcov(fit))))),
       block_sd = sqrt(v[1]), residual_sd = sqrt(v[2]), reml = as.numeric(logLik(fit)))
}
blocks <- list(block_set("npk: yield by N in block", npk$yield, npk$N, npk$block),
  block_set("warpbreaks by tension in wool", warpbreaks$breaks, warpbreaks$tension, warpbreaks$wool),
  block_set("ChickWeight day 10 by diet, ten blocks", ChickWeight$weight[ChickWeight$Time == 10],
            ChickWeight$Diet[ChickWeight$Time == 10], seq_len(sum(ChickWeight$Time == 10)) %% 10),
  block_set("sleep: group in ID", sleep$extra, sleep$group, sleep$ID),
  block_set("Orange: circumference by age in Tree", Orange$circumference, Orange$age, as.character(Orange$Tree)))

# Ranks, orders and choices ---------------------------------------------------------------------------------
order_set <- function(name, value, level) {
  t <- suppressWarnings(cor.test(as.numeric(level), value, method = "kendall", exact = FALSE))
  list(name = name, value = value, level = as.numeric(level), z = t$statistic[[1]], p = t$p.value, tau = t$estimate[[1]])
}
orders <- list(order_set("warpbreaks over tension", warpbreaks$breaks, warpbreaks$tension),
  order_set("ToothGrowth over dose", ToothGrowth$len, ToothGrowth$dose), order_set("InsectSprays", InsectSprays$count, InsectSprays$spray),
  order_set("airquality: Wind over Month", airquality$Wind, airquality$Month), order_set("mtcars: mpg over cyl", mtcars$mpg, mtcars$cyl))
agreement_set <- function(name, grades) {  # a row a judge
  f <- friedman.test(grades); list(name = name, grades = grades, W = f$statistic[[1]] / (nrow(grades) * (ncol(grades) - 1)),
                                   chi2 = f$statistic[[1]], df = f$parameter[[1]], p = f$p.value)
}
agreements <- list(agreement_set("attitude, ten rows", as.matrix(attitude[1:10, ])), agreement_set("USJudgeRatings, eight", as.matrix(USJudgeRatings[1:8, ])),
  agreement_set("grades with ties", matrix(c(1,2,2,3, 1,1,2,3, 2,2,3,3), 3, byrow = TRUE)))
choice_set <- function(name, wins) {  # wins[i, j]: how often i went before j
  n <- nrow(wins); rows <- which(upper.tri(wins) & wins + t(wins) > 0, arr.ind = TRUE)
  X <- t(apply(rows, 1, function(r) { x <- rep(0, n); x[r[1]] <- 1; x[r[2]] <- -1; x }))[, -1]
  fit <- glm(cbind(wins[rows], t(wins)[rows]) ~ X - 1, family = binomial, control = glm.control(1e-14, 100))
  list(name = name, wins = wins, strength = I(c(0, as.numeric(coef(fit)))), se = I(c(0, sqrt(diag(vcov(fit))))),
       chi2 = fit$null.deviance - fit$deviance, df = n - 1, p = pchisq(fit$null.deviance - fit$deviance, n - 1, lower.tail = FALSE))
}
choices <- list(
  choice_set("four, by hand", matrix(c(0,7,9,8, 3,0,6,7, 1,4,0,5, 2,3,5,0), 4, byrow = TRUE)),
  choice_set("three, uneven counts", matrix(c(0,5,2, 3,0,4, 6,1,0), 3, byrow = TRUE)),
  choice_set("five, not all met", matrix(c(0,4,0,3,6, 2,0,5,0,4, 0,1,0,3,2, 3,0,3,0,5, 0,2,4,1,0), 5, byrow = TRUE)))
adjusted <- lapply(list(c(.01, .02, .03, .04, .05), c(.001, .2, .04, .04, .9, .0001), c(.5), c(.03, .03, .03)),
                   function(p) list(p = I(p), bh = I(p.adjust(p, "BH")), by = I(p.adjust(p, "BY"))))

# Robust ----------------------------------------------------------------------------------------------------
huber_set <- function(name, x) list(name = name, value = x, mu = huber(x, 1.5, 1e-12)$mu, s = huber(x, 1.5, 1e-12)$s)
hubers <- list(huber_set("rivers", rivers), huber_set("chem", chem), huber_set("morley", morley$Speed), huber_set("trees: Volume", trees$Volume))
permutation_set <- function(name, a, b) {  # all ways to share the values out
  all <- c(a, b); take <- combn(length(all), length(a)); sums <- colSums(matrix(all[take], nrow = length(a)))
  away <- abs(sums / length(a) - (sum(all) - sums) / length(b))
  list(name = name, a = a, b = b, difference = mean(b) - mean(a), p = mean(away >= abs(mean(b) - mean(a)) * (1 - 1e-12)))
}
permutations <- list(permutation_set("sleep, five each", sleep$extra[1:5], sleep$extra[11:15]),
  permutation_set("PlantGrowth, six and seven", PlantGrowth$weight[11:16], PlantGrowth$weight[21:27]),
  permutation_set("chickwts, three and four", chickwts$weight[1:3], chickwts$weight[11:14]),
  permutation_set("cars, eight each", cars$dist[1:8], cars$dist[9:16]))

version_of <- function(p) paste(p, packageVersion(p))
cat(toJSON(list(r_version = R.version.string, packages = sapply(c("mvtnorm", "survival", "segmented", "lme4", "MASS"), version_of),
                looks = looks, bounded = bounded, bends = bends, blocks = blocks, orders = orders, agreements = agreements,
                choices = choices, adjusted = adjusted, hubers = hubers, permutations = permutations),
           digits = NA, auto_unbox = TRUE, null = "null", na = "null", pretty = FALSE))
