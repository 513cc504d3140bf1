// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/critical_table.h"

#include "core/base/contract.h"
#include "core/stats/studentised.h"

#include <cmath>
#include <utility>

namespace inchpeg
{

CriticalTable::CriticalTable(std::shared_ptr<const StudentisedDistribution> family, double confidence)
    : m_family(std::move(family)), m_confidence(confidence)
{
}

std::shared_ptr<const CriticalTable>
CriticalTable::shared(std::shared_ptr<const StudentisedDistribution> family, double confidence)
{
    constexpr std::size_t kMostTables = 500;
    static std::mutex mutex;
    static std::map<std::pair<std::shared_ptr<const StudentisedDistribution>, double>,
                    std::shared_ptr<const CriticalTable>>
        remembered;
    const std::lock_guard lock(mutex);
    if (remembered.size() >= kMostTables)
        remembered.clear();
    std::shared_ptr<const CriticalTable> &table = remembered[{family, confidence}];
    if (!table)
        table = std::make_shared<const CriticalTable>(std::move(family), confidence);
    return table;
}

double CriticalTable::at(double df) const
{
    require(df > 0.0, "degrees of freedom are above 0");
    const int power = static_cast<int>(std::floor(0.5 * std::log2(df)));
    const std::lock_guard lock(m_mutex);
    auto found = m_stretches.find(power);
    if (found == m_stretches.end()) {
        const double begin = std::exp2(2.0 * power);
        found = m_stretches
                    .emplace(power, OverDegreesOfFreedom(
                                        [this](double at) { return m_family->quantile(m_confidence, at); },
                                        begin, 4.0 * begin))
                    .first;
    }
    return found->second.at(df);
}

} // namespace inchpeg
