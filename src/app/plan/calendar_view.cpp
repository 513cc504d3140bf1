// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/calendar_view.h"

#include "app/parts/page_parts.h"
#include "app/plan/timeline.h"
#include "core/planning/icalendar.h"
#include "core/planning/print_estimate.h"
#include "disk/file_bytes.h"
#include "service/local_zone.h"

#include <QCheckBox>
#include <QDateTime>
#include <QListWidget>

namespace inchpeg::app
{

CalendarView::CalendarView(PlanPresenter &presenter, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_presenter(presenter), m_prompts(prompts)
{
    setObjectName(QStringLiteral("calendarView"));
    QVBoxLayout *layout = scrollingPage(this);
    layout->addWidget(createFields());
    m_words = new QLabel;
    m_words->setObjectName(QStringLiteral("calendarWords"));
    m_words->setWordWrap(true);
    layout->addWidget(m_words);
    m_timeline = new Timeline;
    layout->addWidget(m_timeline);
    m_list = new QListWidget;
    m_list->setObjectName(QStringLiteral("calendarList"));
    m_list->setAccessibleName(tr("What happens when"));
    m_list->setMinimumHeight(140);
    layout->addWidget(m_list, 1);
}

QWidget *CalendarView::createFields()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    auto *hours = button("calendarWorkshop", tr("Working hours…"));
    auto *save = button("saveCalendar", tr("Save the calendar…"));
    save->setToolTip(tr("All dated studies of the project as an iCalendar file, for any calendar program"));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("When what happens")), 1);
    top->addWidget(hours);
    top->addWidget(save);
    layout->addLayout(top);
    m_start = lineEdit("startDate", tr("Start"), tr("year-month-day"));
    auto *today = button("startToday", tr("Today"));
    today->setProperty("slim", true);
    m_dry = new QCheckBox(tr("dry the spools first"));
    m_dry->setObjectName(QStringLiteral("dryFirst"));
    m_conditioning = comboBox("conditioning", tr("Conditioning at 23 °C and 50 %"));
    m_conditioning->addItem(tr("as usual for the material"), -1.0);
    for (const double hoursLong : {0.0, 16.0, 40.0, 88.0})
        m_conditioning->addItem(tr("%1 h").arg(hoursLong), hoursLong);
    m_conditioning->setToolTip(
        tr("At 23 °C and 50 % relative humidity: at least 16 h by ISO 291 and ISO 527-1, 40 h "
           "by ASTM D618, 88 h for materials that take up water (from memory)."));
    auto *row = new QHBoxLayout;
    row->addWidget(new QLabel(tr("Start")));
    row->addWidget(m_start);
    row->addWidget(today);
    row->addWidget(new QLabel(tr("condition")));
    row->addWidget(m_conditioning, 1);
    layout->addLayout(row);
    layout->addWidget(m_dry);
    m_start->setMaximumWidth(120);
    connect(hours, &QPushButton::clicked, this, &CalendarView::workshopRequested);
    connect(save, &QPushButton::clicked, this, &CalendarView::saveCalendar);
    onTyped(
        m_start, [this](const QString &text) { return m_presenter.setStart(text); }, [this] { refresh(); });
    connect(today, &QPushButton::clicked, this, [this] {
        m_presenter.setStart(QString::fromStdString(momentText(m_presenter.state().today())).left(10));
    });
    connect(m_dry, &QCheckBox::clicked, this, [this](bool on) { m_presenter.setDrying(on); });
    connect(m_conditioning, &QComboBox::activated, this, [this] {
        const double chosen = m_conditioning->currentData().toDouble();
        m_presenter.setConditioning(chosen < 0.0 ? std::nullopt : std::optional(chosen));
    });
    return box;
}

void CalendarView::saveCalendar()
{
    const QString path = m_prompts.savePath(this, tr("Save the calendar"), QStringLiteral("inch-peg.ics"),
                                            tr("Calendar (*.ics)"));
    if (path.isEmpty())
        return;
    std::map<StudyId, std::string> questions;
    for (const StudyHeader &header : m_presenter.session().studies())
        questions[header.id] = header.question;
    const QString stamp =
        QDateTime::fromString(QString::fromStdString(m_presenter.session().now()), Qt::ISODate)
            .toUTC()
            .toString(QStringLiteral("yyyyMMddThhmmssZ"));
    m_presenter.session().tell(
        writeFileBytes(path.toStdString(), iCalendarText(m_presenter.state().calendar(), questions,
                                                         stamp.toStdString(), localZone())));
}

void CalendarView::refresh()
{
    PlanState &state = m_presenter.state();
    const Study &study = state.study();
    showText(m_start, QString::fromStdString(study.plan.dates.start));
    m_dry->setChecked(study.plan.dates.dry);
    {
        const QSignalBlocker blocker(m_conditioning);
        m_conditioning->setCurrentIndex(
            std::max(0, m_conditioning->findData(study.plan.dates.conditioning_h.value_or(-1.0))));
    }
    const std::vector<CalendarEntry> &calendar = state.calendar();
    m_timeline->set(calendar, study.id, state.today());
    m_list->clear();
    Moment last{};
    int attended_min = 0;
    int moved = 0;
    Moment end{};
    for (const CalendarEntry &entry : calendar) {
        if (entry.study != study.id)
            continue;
        end = std::max(end, entry.end);
        moved += entry.shifted_min > 0 ? 1 : 0;
        if (entry.attended)
            attended_min += static_cast<int>((entry.end - entry.start).count());
        if (entry.kind == WorkKind::Cooling)
            continue;
        const Moment day = Moment(std::chrono::floor<std::chrono::days>(entry.start));
        if (day != last) {
            auto *head = new QListWidgetItem(QString::fromStdString(dayText(day)), m_list);
            QFont bold = m_list->font();
            bold.setBold(true);
            head->setFont(bold);
            head->setFlags(Qt::ItemIsEnabled);
            last = day;
        }
        QString line =
            tr("   %1  %2")
                .arg(QString::fromStdString(clockText(entry.start)), QString::fromStdString(entry.what));
        if (!entry.attended)
            line += tr(", until %1 %2")
                        .arg(QString::fromStdString(dayText(entry.end)),
                             QString::fromStdString(clockText(entry.end)));
        if (!entry.resource.empty())
            line += QStringLiteral("  ·  ") + QString::fromStdString(entry.resource);
        if (entry.shifted_min > 0)
            line += QStringLiteral("  (%1)").arg(QString::fromStdString(movedText(entry)));
        new QListWidgetItem(line, m_list);
    }
    m_list->setVisible(m_list->count() > 0);
    QString words = state.calendarTrouble();
    if (words.isEmpty() && m_list->count() > 0)
        words = tr("Done by %1 at %2; a person is needed for %3 h in all.")
                    .arg(QString::fromStdString(dayText(end)), QString::fromStdString(clockText(end)))
                    .arg(attended_min / 60.0, 0, 'f', 1);
    if (moved > 0)
        words +=
            tr(" %1 readings fall outside working hours and are laid to the next morning: the times that "
               "count are those at which they are really read.")
                .arg(moved);
    m_words->setText(words);
    m_words->setVisible(!words.isEmpty());
}

} // namespace inchpeg::app
