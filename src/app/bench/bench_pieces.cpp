// SPDX-License-Identifier: GPL-3.0-or-later
// What is said of the piece at the rig: its break, that it is void, that it is tested or printed again; and
// the records that were cut off.
#include "app/bench/bench_presenter.h"
#include "core/logbook/bench_plan.h"
#include "core/logbook/break_looks.h"
#include "core/logbook/room.h"
#include "core/model/print_state.h"
#include "core/model/study_edit.h"
#include "core/planning/lab_code.h"
#include "service/local_day.h"

#include <fmt/format.h>

namespace inchpeg::app
{

bool BenchPresenter::goTo(const QString &code)
{
    const std::string typed = code.simplified().toStdString();
    if (typed.empty() || m_session.study() == nullptr)
        return false;
    for (const Piece &one : m_session.study()->pieces) {
        if (QString::fromStdString(one.code).compare(code.simplified(), Qt::CaseInsensitive) != 0)
            continue;
        m_session.setShownTest(one.test);
        m_session.selectPiece(one.id);
        return true;
    }
    std::optional<ReadCode> label = readLabCode(typed);
    const std::string &prefix = m_session.workshop().labPrefix;
    if (const std::optional<PieceId> blind = pieceOfLabel(prefix, typed); !label && blind)
        label = ReadCode{prefix, *blind};
    const Result<StudyId> study = label ? m_session.project().studyOf(label->piece)
                                        : Result<StudyId>(invalidArgument("no piece here is called \"" +
                                                                          typed + "\", and it is no label"));
    if (!m_session.tell(study ? ok() : Status(study.error())) ||
        !m_session.tell(m_session.goTo(*study, label->piece)))
        return false;
    if (const Piece *found = findPiece(*m_session.study(), label->piece))
        m_session.setShownTest(found->test);
    return true;
}

void BenchPresenter::sayBreak(const QString &look)
{
    m_session.tryEdit(tr("look of a break"), [&](Study &study) -> Status {
        Piece *changed = findPiece(study, m_piece);
        return changed == nullptr ? Status(invalidArgument("the piece is no longer there"))
                                  : setBreakLook(*changed, look.toStdString());
    });
}

bool BenchPresenter::voidPiece(const QString &reason)
{
    if (live().isRecording)
        return false;
    const bool isDone = m_session.tryEdit(tr("void a piece"), [&](Study &study) -> Status {
        Piece *changed = findPiece(study, m_piece);
        if (changed == nullptr)
            return invalidArgument("the piece is no longer there");
        return leaveOut(*changed, m_session.exclusion(reason));
    });
    if (isDone) {
        m_isDone = false;
        refresh();
    }
    return isDone;
}

bool BenchPresenter::canTestAgain() const
{
    return m_isDone && piece() != nullptr && piece()->recording && !m_session.isForReading();
}

bool BenchPresenter::testAgain(const QString &reason)
{
    if (!canTestAgain())
        return false;
    const bool isSet = m_session.tryEdit(tr("test a piece again"), [&](Study &study) -> Status {
        return inchpeg::testAgain(*findPiece(study, m_piece), reason.toStdString(), m_session.today());
    });
    if (isSet) {
        m_timed.forget(m_piece);
        m_steps.forget(m_piece);
        m_isDone = false;
        m_session.selectPiece(m_piece);
        refresh();
    }
    return isSet;
}

bool BenchPresenter::canPrintAgain() const
{
    return piece() != nullptr && !piece()->recording && !m_session.isForReading() &&
           !platesOf(*m_session.study(), m_piece).empty();
}

bool BenchPresenter::printAgain(const QString &reason)
{
    if (!canPrintAgain() || live().isRecording)
        return false;
    const bool isSet = m_session.tryEdit(tr("print a piece again"), [&](Study &study) -> Status {
        return inchpeg::printAgain(study, m_piece, reason.toStdString(), m_session.who().toStdString(),
                                   m_session.now());
    });
    if (isSet)
        refresh();
    return isSet;
}

const RoomReading *BenchPresenter::roomToday() const
{
    if (m_session.study() == nullptr)
        return nullptr;
    const DaySpan day = localDaySpan(m_session.now());
    return roomBetween(m_session.study()->log, day.begins, day.ends);
}

QString BenchPresenter::roomText() const
{
    const RoomReading *room = roomToday();
    if (room == nullptr)
        return {};
    return QString::fromStdString(fmt::format(
        "{}, {:.0f} %", m_session.notation().quantity(room->temperature_C, Dimension::Temperature, 3),
        room->humidity_percent));
}

bool BenchPresenter::setRoom(const QString &text)
{
    if (m_session.study() == nullptr)
        return false;
    Result<RoomReading> room =
        roomFrom(text.toStdString(), m_session.notation().unitOf(Dimension::Temperature));
    if (!m_session.tell(room ? ok() : Status(room.error())))
        return false;
    room->when = m_session.now();
    room->who = m_session.who().toStdString();
    return m_session.tryEdit(tr("room"), [&](Study &study) {
        study.log.rooms.push_back(*room);
        return ok();
    });
}

QString BenchPresenter::note() const
{
    return piece() == nullptr ? QString() : QString::fromStdString(piece()->log.note);
}

void BenchPresenter::setNote(const QString &note)
{
    if (piece() == nullptr || note == this->note())
        return;
    m_session.tryEdit(tr("note"), [&](Study &study) {
        findPiece(study, m_piece)->log.note = note.toStdString();
        return ok();
    });
}

void BenchPresenter::takeCutOff()
{
    if (m_cutOff.empty() || m_keeper.isBusy() || m_session.study() == nullptr)
        return;
    const CutOffRecord record = m_cutOff.front();
    const Result<StudyId> home = m_session.project().studyOf(record.piece);
    const Result<Study> study = home ? m_session.project().loadStudy(*home) : Result<Study>(home.error());
    const Piece *cut = study ? findPiece(*study, record.piece) : nullptr;
    if (cut == nullptr) {
        emit told(study ? tr("The piece of that record is no longer there.")
                        : QString::fromStdString(study.error().message));
        return;
    }
    if (cut->recording) {
        emit told(
            tr("%1 has a record already; this one was left aside.").arg(QString::fromStdString(cut->code)));
        leaveCutOffAside();
        return;
    }
    m_cutOff.erase(m_cutOff.begin());
    if (*home == m_session.study()->id) {
        m_session.setShownTest(cut->test);
        m_piece = record.piece;
    }
    m_keeper.keepRecord(*home, record,
                        QStringLiteral("bench %1 cut off.txt").arg(QString::fromStdString(cut->code)));
    emit changed();
}

void BenchPresenter::leaveCutOffAside()
{
    if (m_cutOff.empty())
        return;
    const CutOffRecord record = m_cutOff.front();
    m_cutOff.erase(m_cutOff.begin());
    leaveAside(record);
    emit changed();
}

} // namespace inchpeg::app
