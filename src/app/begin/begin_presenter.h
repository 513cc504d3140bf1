// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "service/beside/task.h"
#include "service/intake/study_from_files.h"

#include <QObject>
#include <QStringList>
#include <QTemporaryDir>

#include <map>
#include <memory>
#include <optional>

namespace inchpeg::app
{

/// A study on its way from what is there already: files, a folder, or a table that was pasted. Nothing enters
/// the project before make().
class BeginPresenter : public QObject
{
    Q_OBJECT
public:
    explicit BeginPresenter(ProjectSession &session, QObject *parent = nullptr);

    /// Looks at files and folders, in another thread; what was said of others before is forgotten.
    void lookAt(const QStringList &paths);
    /// A table as it was copied from a spreadsheet. A refusal is told by the session.
    void lookAtText(const QString &text);
    [[nodiscard]] bool isLooking() const { return m_looking.isRunning(); }
    void stop();

    /// Nothing while nothing was looked at, or it cannot be read: problem() says why then.
    [[nodiscard]] const FoundStudy *found() const { return m_found ? &*m_found : nullptr; }
    [[nodiscard]] QString problem() const { return m_problem; }
    /// What has to be said before a study can be made of it; empty where nothing has.
    [[nodiscard]] QStringList openQuestions() const;
    [[nodiscard]] QStringList remarks() const; ///< what was taken for so, and what waits
    [[nodiscard]] bool canMake() const;

    [[nodiscard]] Method test() const { return m_found ? m_found->test : Method::Tension; }
    void setTest(Method test);
    /// What part of the names, or column, this is: a factor of this name and unit, kCountsPieces or
    /// kMeansNothing.
    void setPart(std::size_t number, const QString &name, const QString &unit);
    /// The property that a column of results holds, and its unit; "-" for one that is left aside, "code" for
    /// the one that names the pieces.
    void setColumn(std::size_t number, const QString &meaning, const QString &unit);

    /// The question that stands there until the person writes another.
    [[nodiscard]] QString proposedQuestion() const;
    /// Makes the study and puts it on the rack, in Compare. A refusal is told by the session.
    bool make(const QString &question);

signals:
    void changed();

private:
    void lookAgain();
    void take(Result<FoundStudy> result);

    ProjectSession &m_session;
    StudyFromFiles m_request;
    std::map<std::size_t, NamedFactor> m_parts;
    std::map<std::size_t, SaidColumn> m_columns;
    std::optional<FoundStudy> m_found;
    QString m_problem;
    std::unique_ptr<QTemporaryDir> m_pasted;
    Task<FoundStudy> m_looking;
    bool m_isOutOfDate = false;
};

} // namespace inchpeg::app
