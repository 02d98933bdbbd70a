/* What the API bounds in each body that it takes. Made by ./dev api: do not edit. */
export const BOUNDS = {
 "AddPassAsk": {
  "count": {
   "minimum": 1,
   "maximum": 50
  }
 },
 "AddressIn": {
  "address": {
   "maxLength": 120
  }
 },
 "AnswerAsk": {
  "outcome": {
   "minLength": 0,
   "maxLength": 40
  },
  "question": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "ArriveIn": {
  "place": {
   "maxLength": 60
  }
 },
 "AskAccountAsk": {
  "by_name": {
   "minLength": 1,
   "maxLength": 120
  },
  "what": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "AskIn": {
  "version": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "BeginningIn": {
  "console": {
   "maxLength": 80
  },
  "like": {
   "maxLength": 40
  },
  "maker": {
   "maxLength": 80
  },
  "revision": {
   "maxLength": 40
  },
  "variant": {
   "maxLength": 40
  }
 },
 "BringOwnBackAsk": {
  "part": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "CalendarIn": {
  "name": {
   "maxLength": 60
  }
 },
 "CancelIn": {
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "ChecksIn": {
  "unit": {
   "maxLength": 60
  }
 },
 "ClearHoldAsk": {
  "code": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "CodeIn": {
  "code": {
   "maxLength": 120
  }
 },
 "CollectAsk": {
  "by_name": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "ConfirmCauseAsk": {
  "fault": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "ConsentAsk": {
  "amount_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "how": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "ConsoleIn": {
  "based_on": {
   "minimum": 0,
   "maximum": 2000000000
  },
  "why": {
   "maxLength": 120
  }
 },
 "DonorIn": {
  "bought_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "origin": {
   "maxLength": 120
  },
  "place": {
   "maxLength": 60
  },
  "variant": {
   "minLength": 1,
   "maxLength": 40
  }
 },
 "DonorScrapIn": {
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "FiguresIn": {
  "version": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "FunctionIn": {
  "digits": {
   "minimum": 0,
   "maximum": 100
  },
  "pct": {
   "minimum": 0,
   "maximum": 20
  },
  "resolution": {
   "minimum": 0,
   "maximum": 1000
  }
 },
 "GoBackAsk": {
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "HarvestIn": {
  "place": {
   "maxLength": 60
  }
 },
 "HearAsk": {
  "outcome": {
   "minLength": 0,
   "maxLength": 40
  },
  "question": {
   "minLength": 0,
   "maxLength": 40
  },
  "sound": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "IntakeIn": {
  "complaint": {
   "maxLength": 2000
  },
  "owner_contact": {
   "maxLength": 120
  },
  "owner_name": {
   "maxLength": 120
  },
  "returns": {
   "maxLength": 120
  },
  "sheet_id": {
   "minimum": 1,
   "maximum": 2000000000
  },
  "supply": {
   "maxLength": 120
  }
 },
 "KeepSoundAsk": {
  "cover": {
   "minLength": 0,
   "maxLength": 3
  },
  "disc": {
   "minLength": 0,
   "maxLength": 120
  },
  "hash": {
   "minLength": 0,
   "maxLength": 64
  },
  "microphone": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "LeaveCheckAsk": {
  "check": {
   "minLength": 0,
   "maxLength": 40
  },
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "LeaveUnitAsk": {
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "LiftHoldAsk": {
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "code": {
   "minLength": 0,
   "maxLength": 40
  },
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "LineIn": {
  "text": {
   "maxLength": 200
  }
 },
 "MarkCheckAsk": {
  "check": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "MarkPhotoAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "MarkPlaceAsk": {
  "head": {
   "minLength": 0,
   "maxLength": 120
  },
  "length_mm": {
   "minimum": 0,
   "maximum": 60
  },
  "place": {
   "minLength": 0,
   "maxLength": 120
  },
  "thread_mm": {
   "minimum": 0,
   "maximum": 8
  },
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "MarkStepAsk": {
  "fuse": {
   "minLength": 0,
   "maxLength": 120
  },
  "step": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "MeasureAsk": {
  "about": {
   "minLength": 0,
   "maxLength": 120
  },
  "question": {
   "minLength": 0,
   "maxLength": 40
  },
  "tool": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "MeterIn": {
  "address": {
   "maxLength": 120
  },
  "name": {
   "maxLength": 60
  }
 },
 "MinimumIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "count": {
   "minimum": 0,
   "maximum": 10000
  }
 },
 "NotePartAsk": {
  "item": {
   "minLength": 0,
   "maxLength": 120
  },
  "price_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  },
  "wait_days": {
   "minimum": 0,
   "maximum": 365
  }
 },
 "OpenStepAsk": {
  "step": {
   "minLength": 0,
   "maxLength": 120
  },
  "turned_to": {
   "minLength": 0,
   "maxLength": 120
  },
  "way": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "OrderIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "name": {
   "maxLength": 120
  },
  "pack_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "pack_size": {
   "minimum": 1,
   "maximum": 10000
  },
  "packs": {
   "minimum": 1,
   "maximum": 10000
  },
  "supplier": {
   "minLength": 1,
   "maxLength": 80
  }
 },
 "OwnPasswordIn": {
  "new": {
   "maxLength": 120
  },
  "old": {
   "maxLength": 120
  }
 },
 "OwnerSaysAsk": {
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "how": {
   "minLength": 0,
   "maxLength": 120
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  },
  "text": {
   "minLength": 0,
   "maxLength": 2000
  }
 },
 "PasswordIn": {
  "password": {
   "maxLength": 120
  }
 },
 "PersonIn": {
  "name": {
   "maxLength": 120
  },
  "password": {
   "minLength": 1,
   "maxLength": 120
  },
  "username": {
   "minLength": 1,
   "maxLength": 40
  }
 },
 "PhotographAsk": {
  "hash": {
   "minLength": 0,
   "maxLength": 64
  },
  "of": {
   "minLength": 0,
   "maxLength": 120
  },
  "says": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "PracticeMoveIn": {
  "after": {
   "minimum": 0,
   "maximum": 1000
  },
  "percent": {
   "minimum": 0,
   "maximum": 100
  }
 },
 "ProposeAsk": {
  "end": {
   "minLength": 0,
   "maxLength": 40
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "PutBackAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "RangeIn": {
  "digits": {
   "minimum": 0,
   "maximum": 100
  },
  "pct": {
   "minimum": 0,
   "maximum": 20
  },
  "resolution": {
   "minimum": 0,
   "maximum": 1000
  },
  "up_to": {
   "maximum": 1000000000.0
  }
 },
 "ReceiveIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "count": {
   "minimum": 1,
   "maximum": 10000
  },
  "lot": {
   "maxLength": 40
  },
  "name": {
   "maxLength": 120
  },
  "pack_cents": {
   "minimum": 0,
   "maximum": 10000000
  },
  "pack_size": {
   "minimum": 1,
   "maximum": 10000
  },
  "place": {
   "maxLength": 60
  }
 },
 "RecordStepAsk": {
  "count": {
   "minimum": 0,
   "maximum": 40
  },
  "falls": {
   "minLength": 0,
   "maxLength": 120
  },
  "frees": {
   "minLength": 0,
   "maxLength": 40
  },
  "head": {
   "minLength": 0,
   "maxLength": 120
  },
  "how": {
   "minLength": 0,
   "maxLength": 120
  },
  "latch": {
   "minLength": 0,
   "maxLength": 120
  },
  "length_mm": {
   "minimum": 0,
   "maximum": 60
  },
  "opens_to": {
   "minLength": 0,
   "maxLength": 120
  },
  "route": {
   "minLength": 0,
   "maxLength": 120
  },
  "side": {
   "minLength": 0,
   "maxLength": 120
  },
  "step": {
   "minLength": 0,
   "maxLength": 120
  },
  "tether": {
   "minLength": 0,
   "maxLength": 120
  },
  "thread_mm": {
   "minimum": 0,
   "maximum": 8
  },
  "tool": {
   "minLength": 0,
   "maxLength": 120
  },
  "way_round": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "ReferenceIn": {
  "line": {
   "minimum": 1,
   "maximum": 2000000000
  }
 },
 "ReleaseOwnAsk": {
  "by_name": {
   "minLength": 0,
   "maxLength": 120
  },
  "part": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "RemarkAsk": {
  "text": {
   "minLength": 1,
   "maxLength": 2000
  }
 },
 "RestoreAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "RetellAsk": {
  "sound": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "RunIn": {
  "about": {
   "maxLength": 120
  },
  "disc": {
   "maxLength": 10
  },
  "mains": {
   "maxLength": 10
  },
  "switch": {
   "maxLength": 10
  }
 },
 "SayIn": {
  "code": {
   "minLength": 1,
   "maxLength": 60
  },
  "reason": {
   "maxLength": 120
  },
  "said": {
   "maxLength": 120
  },
  "variant": {
   "minLength": 1,
   "maxLength": 40
  }
 },
 "ScrapIn": {
  "count": {
   "minimum": 1,
   "maximum": 10000
  },
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 },
 "SetDepthAsk": {
  "depth": {
   "minimum": 0,
   "maximum": 3
  }
 },
 "SheetIn": {
  "based_on": {
   "minimum": 0,
   "maximum": 2000000000
  },
  "why": {
   "maxLength": 120
  }
 },
 "SignIn": {
  "code": {
   "maxLength": 120
  },
  "password": {
   "maxLength": 120
  },
  "username": {
   "maxLength": 120
  }
 },
 "SizeIn": {
  "around_mm": {
   "minimum": 20,
   "maximum": 600
  },
  "section_mm": {
   "minimum": 0.5,
   "maximum": 6
  }
 },
 "StrikeAsk": {
  "line": {
   "minimum": 0,
   "maximum": 2000000000
  },
  "why": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "TakeOutOwnAsk": {
  "level": {
   "minLength": 0,
   "maxLength": 40
  },
  "place": {
   "minLength": 0,
   "maxLength": 120
  }
 },
 "TakePartAsk": {
  "part": {
   "minLength": 0,
   "maxLength": 120
  },
  "repair": {
   "minLength": 0,
   "maxLength": 40
  }
 },
 "TakePaymentAsk": {
  "cents": {
   "minimum": 0,
   "maximum": 10000000
  }
 },
 "TellOwnerAsk": {
  "what": {
   "minLength": 0,
   "maxLength": 400
  }
 },
 "TickAsk": {
  "plan": {
   "minLength": 0,
   "maxLength": 40
  },
  "step": {
   "minLength": 0,
   "maxLength": 40
  },
  "text": {
   "minLength": 0,
   "maxLength": 2000
  }
 },
 "TrialAsk": {
  "clean_passes": {
   "minimum": 0,
   "maximum": 1000
  }
 },
 "UseLearntIn": {
  "jobs": {
   "minimum": 0,
   "maximum": 2000000000
  }
 },
 "VoidAsk": {
  "why": {
   "minLength": 1,
   "maxLength": 120
  }
 }
} as const
