// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/compare/next_levels.h"
#include "core/decide/own_averages.h"
#include "service/beside/task.h"
#include "service/project_results.h"

#include <map>
#include <memory>

namespace inchpeg::app
{

/// What the shown comparison answers beyond the headline, worked out beside the window: with rails of
/// different sizes each has a distribution of its own, which takes longer than a frame.
class AnswersPresenter : public QObject
{
    Q_OBJECT
public:
    explicit AnswersPresenter(ProjectSession &session, QObject *parent = nullptr);

    /// Asks anew; answers that are shown stand until the new ones are there, unless nothing can be asked.
    void refresh();
    [[nodiscard]] bool isWorking() const { return m_asking.isRunning(); }
    [[nodiscard]] const QStringList &answers() const { return m_answers; } ///< a sentence each
    /// Levels that could be tried next; nothing where there is nothing to be gained.
    [[nodiscard]] const std::optional<NextLevels> &next() const { return m_next; }
    /// The own averages of the rails' polymers, of all earlier work: marks on the rails.
    [[nodiscard]] const std::map<ConditionId, OwnAverage> &averages() const { return m_averages; }
    /// Makes a study of them, and shows it in Ask & plan.
    bool planNext();

signals:
    void changed();

private:
    struct Asked;
    /// All studies of the project, and the projects of its library.
    struct Earlier {
        ProjectResults own;
        LibraryResults library;
    };
    /// The answers, and what was read for them, for the next time.
    struct Answered {
        QStringList answers;
        std::optional<NextLevels> next;
        std::map<ConditionId, OwnAverage> averages;
        std::shared_ptr<const Earlier> earlier;
    };
    static Answered workOut(const Asked &asked);
    void take(Result<Answered> result);
    [[nodiscard]] QString earlierKey() const;

    ProjectSession &m_session;
    bool m_isOutOfDate = false; ///< what is being worked out: something was changed since
    QStringList m_answers;
    std::optional<NextLevels> m_next;
    std::map<ConditionId, OwnAverage> m_averages;
    std::shared_ptr<const Earlier> m_earlier; ///< of the studies beside the shown one
    QString m_earlierKey;                     ///< what they were read for
    Task<Answered> m_asking;
};

} // namespace inchpeg::app
