// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/decide/decision.h"
#include "report/write_report.h"
#include "service/beside/task.h"

#include <QObject>
#include <QPicture>
#include <QSizeF>

#include <functional>
#include <memory>
#include <optional>
#include <vector>

namespace inchpeg::app
{

/// What leaves the program for others.
enum class Telling { StudyReport, DecisionReport, ResultCard, DecisionCard, OpenData };
inline constexpr Telling kTellings[] = {Telling::StudyReport, Telling::DecisionReport, Telling::ResultCard,
                                        Telling::DecisionCard, Telling::OpenData};

/// What was made to be told, as it is looked at.
struct Told {
    std::vector<QPicture> pages; ///< each drawn in millimetres
    QSizeF page_mm{210.0, 297.0};
    std::shared_ptr<const Report> report;      ///< of reports
    std::shared_ptr<const PagedReport> layout; ///< of these; for one thread at a time
    Drawing drawing;                           ///< of cards
    QString failure;                           ///< why there is nothing
};

/// Makes reports, cards and open data of the study on the rack or of the decision, beside the window, and
/// writes them where the person says.
class TellPresenter : public QObject
{
    Q_OBJECT
public:
    /// decision: as the decide lens has it; nothing where none is worked out.
    TellPresenter(ProjectSession &session, std::function<std::optional<Decision>()> decision,
                  QObject *parent = nullptr);

    [[nodiscard]] Telling what() const { return m_what; }
    void choose(Telling what);
    [[nodiscard]] bool canTell(Telling what) const;
    [[nodiscard]] Paper paper() const { return m_paper; }
    void setPaper(Paper paper);
    /// Made only while it is looked at.
    void setWatched(bool watched);

    [[nodiscard]] const Told &told() const { return m_told; }
    [[nodiscard]] bool isWorking() const { return m_making.isRunning() || m_writing.isRunning(); }
    /// Name of a file without its ending, of the question or the part.
    [[nodiscard]] QString offeredName() const;
    /// Writes what was made, in another thread; the ending of the path decides how. Tells of it by written().
    void write(const QString &path);
    [[nodiscard]] bool isWriting() const { return m_writing.isRunning(); }
    void cancel() { m_writing.stop(); }
    /// The tables of a report by their titles, and one as tab-separated text and as HTML for a spreadsheet.
    [[nodiscard]] QStringList tables() const;
    struct CopiedTable {
        QString text;
        QString html;
    };
    [[nodiscard]] CopiedTable table(std::size_t place) const;
    void refresh();

signals:
    void changed();
    void progress(int done, int all);
    void failed(const QString &sentence);
    void written(const QString &path);

private:
    struct Asked;
    static Told make(const Asked &asked);
    static Status writeTo(const std::string &path, const Asked &asked, const Told &told,
                          const TaskControl &control);
    [[nodiscard]] Asked ask() const;

    ProjectSession &m_session;
    std::function<std::optional<Decision>()> m_decision;
    Telling m_what = Telling::StudyReport;
    Paper m_paper = Paper::A4;
    bool m_isWatched = false;
    bool m_isOutOfDate = false;
    Told m_told;
    Task<Told> m_making;
    Task<Status> m_writing;
};

} // namespace inchpeg::app
