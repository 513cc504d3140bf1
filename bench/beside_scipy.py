import numpy as np, time
from scipy import stats
r=np.random.default_rng(3); g=[r.normal(30,1,30) for _ in range(12)]
def f():
    stats.f_oneway(*g); stats.kruskal(*g); stats.bartlett(*g); stats.levene(*g); stats.tukey_hsd(*g).confidence_interval()
    for i in range(12):
        for j in range(i+1,12):
            stats.ttest_ind(g[i],g[j]); stats.ttest_ind(g[i],g[j],equal_var=False); stats.mannwhitneyu(g[i],g[j],method='exact')
f(); t=time.time()
for _ in range(3): f()
print((time.time()-t)/3)
