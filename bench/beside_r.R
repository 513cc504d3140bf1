library(multcomp)
set.seed(3); g <- factor(rep(1:12, each=30)); y <- rnorm(360, 30)
f <- function() { a <- aov(y~g); summary(a); oneway.test(y~g); kruskal.test(y~g); bartlett.test(y~g); TukeyHSD(a)
 pairwise.t.test(y,g,p.adjust.method="holm",pool.sd=FALSE)
 for(i in 1:11) for(j in (i+1):12) { wilcox.test(y[g==i],y[g==j]); t.test(y[g==i],y[g==j]); t.test(y[g==i],y[g==j],var.equal=TRUE) }
 confint(glht(a, linfct=mcp(g="Dunnett"))) }
f(); print(system.time(for(k in 1:5) f())/5)
