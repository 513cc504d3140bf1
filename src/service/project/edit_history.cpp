// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/edit_history.h"

namespace inchpeg
{

namespace
{

/// A step holds what its edit changed: a piece or two as a rule, all pieces of a study after a large paste.
constexpr std::size_t kMostSteps = 200;

} // namespace

void EditHistory::clear()
{
    m_steps.clear();
    m_done = 0;
}

void EditHistory::add(Step step)
{
    m_steps.resize(m_done);
    m_steps.push_back(std::move(step));
    if (m_steps.size() > kMostSteps)
        m_steps.erase(m_steps.begin());
    m_done = m_steps.size();
}

std::string EditHistory::undoText() const
{
    return undoStep() != nullptr ? undoStep()->what : std::string();
}

std::string EditHistory::redoText() const
{
    return redoStep() != nullptr ? redoStep()->what : std::string();
}

const EditHistory::Step *EditHistory::undoStep() const
{
    return m_done > 0 ? &m_steps[m_done - 1] : nullptr;
}

const EditHistory::Step *EditHistory::redoStep() const
{
    return m_done < m_steps.size() ? &m_steps[m_done] : nullptr;
}

void EditHistory::stepBack()
{
    require(m_done > 0, "nothing to undo");
    --m_done;
}

void EditHistory::stepForward()
{
    require(m_done < m_steps.size(), "nothing to redo");
    ++m_done;
}

} // namespace inchpeg
