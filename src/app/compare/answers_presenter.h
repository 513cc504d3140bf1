// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "service/project_results.h"

#include <QFutureWatcher>

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
    ~AnswersPresenter() override;

    /// Asks anew; answers that are shown stand until the new ones are there, unless nothing can be asked.
    void refresh();
    [[nodiscard]] bool isWorking() const { return m_watcher != nullptr; }
    [[nodiscard]] const QStringList &answers() const { return m_answers; } ///< a sentence each

signals:
    void changed();

private:
    struct Asked;
    /// The answers, and the results of all studies for the next time.
    struct Answered {
        QStringList answers;
        std::shared_ptr<const ProjectResults> others;
    };
    static Answered workOut(const Asked &asked);
    void take();
    [[nodiscard]] QString othersKey() const;

    ProjectSession &m_session;
    std::unique_ptr<QFutureWatcher<Answered>> m_watcher;
    bool m_isOutOfDate = false; ///< what is being worked out: something was changed since
    QStringList m_answers;
    std::shared_ptr<const ProjectResults> m_others; ///< of the studies beside the shown one
    QString m_othersKey;                            ///< what they were read for
};

} // namespace inchpeg::app
